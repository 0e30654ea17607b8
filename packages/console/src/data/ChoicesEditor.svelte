<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { describePlace, freeName, renameChoice, slugOf, usesOfChoices } from '@pallmist/app/editing';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import Failure from '../controls/Failure.svelte';

  const { draft, list, open }: { draft: Draft; list: string; open: boolean } = $props();
  const at = $derived(toPointer(['choices', list]));
  const values = $derived(Object.entries(draft.definition?.choices?.[list] ?? {}));
  const uses = $derived(draft.definition ? usesOfChoices(draft.definition, list) : []);
  let refused: string | undefined = $state();

  const labelOf = (choice: (typeof values)[number][1]) => (typeof choice === 'string' ? choice : choice.label);
  const formerOf = (choice: (typeof values)[number][1]) => (typeof choice === 'string' ? [] : (choice.formerValues ?? []));
  const below = (value: string) => at + toPointer([value]);

  function add(label: string) {
    const value = freeName(
      slugOf(label),
      values.map(([name]) => name),
      '-',
    );
    return draft.set(below(value), label, `Added “${label}” to “${list}”`);
  }
  function rename(from: string, to: string) {
    refused = undefined;
    if (from === to || !draft.definition) return;
    if (!/^[\w-]+$/.test(to)) refused = 'A value has letters, digits, “_” and “-”.';
    else if (values.some(([name]) => name === to)) refused = `The list has “${to}” already.`;
    else draft.edit(renameChoice(draft.definition, list, from, to), `Renamed the choice “${from}” to “${to}”`);
  }
  function relabel(value: string, choice: (typeof values)[number][1], text: string) {
    draft.set(typeof choice === 'string' ? below(value) : `${below(value)}/label`, text, `Changed the label of “${value}”`);
  }
</script>

<details {open}>
  <summary>{list} <span>{values.length}</span></summary>
  <ul>
    {#each values as [value, choice] (value)}
      <li>
        <input
          class="code"
          aria-label="Value"
          {value}
          disabled={!me.mayChange}
          onchange={({ currentTarget }) => rename(value, currentTarget.value.trim())}
        />
        <input
          aria-label="Label of {value}"
          value={labelOf(choice)}
          disabled={!me.mayChange}
          oninput={({ currentTarget }) => relabel(value, choice, currentTarget.value)}
        />
        {#if me.mayChange}
          <Button
            small
            look="quiet"
            aria-label="Remove {value}"
            onclick={() => draft.set(below(value), undefined, `Removed “${value}” from “${list}”`)}>Remove</Button
          >
        {/if}
        {#if formerOf(choice).length > 0}<span class="former">was {formerOf(choice).join(', ')}</span>{/if}
      </li>
    {/each}
  </ul>
  <Failure text={refused} />
  {#each draft.problemsAt(at) as problem (problem.code + (problem.pointer ?? ''))}<p class="bad">{problem.message}</p>{/each}
  {#if me.mayChange}
    <AddForm label="Label of a new choice" placeholder="label" button="Add" onadd={add} />
    <p>
      {uses.length === 0
        ? 'Nothing uses it.'
        : `Used by ${uses.map(({ pointer }) => describePlace(draft.definition ?? { pages: {} }, pointer).words).join('; ')}.`}
    </p>
    {#if uses.length === 0}<Button small look="danger" onclick={() => draft.set(at, undefined, `Removed the choices list “${list}”`)}
        >Remove the list</Button
      >{/if}
  {/if}
</details>

<style>
  details {
    border-block-end: 1px solid var(--line);
    padding-block: 0.2rem;
  }
  summary {
    cursor: pointer;
    overflow-wrap: anywhere;
  }
  summary span {
    color: var(--quiet);
    font-size: 0.75rem;
  }
  ul {
    list-style: none;
    margin: 0.2rem 0;
    padding: 0;
    display: grid;
    gap: 0.2rem;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr) auto;
    gap: 0.2rem;
  }
  .former {
    grid-column: 1 / -1;
    color: var(--quiet);
    font-size: 0.75rem;
  }
  input {
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.05rem 0.35rem;
    font-size: 0.875rem;
  }
  .code {
    font-family: var(--code);
    font-size: 0.8125rem;
  }
  p {
    margin: 0.2rem 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .bad {
    color: var(--bad);
  }
</style>
