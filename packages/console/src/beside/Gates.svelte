<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { addTo, freeName, slugOf, usesOfGate } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const gates = $derived(Object.entries(draft.definition?.gates ?? {}));
  let name = $state('');

  function add(event: SubmitEvent) {
    event.preventDefault();
    if (!draft.definition || name.trim() === '') return;
    const free = freeName(
      slugOf(name),
      gates.map(([gate]) => gate),
      '-',
    );
    if (draft.edit([addTo(draft.definition, 'gates', free, { roles: [free] })], `Added the gate “${free}”`)) name = '';
  }
  function setRoles(gate: string, text: string) {
    const roles = text
      .split(',')
      .map((role) => role.trim())
      .filter(Boolean);
    draft.set(toPointer(['gates', gate, 'roles']), roles.length > 0 ? roles : undefined, `Changed the roles of the gate “${gate}”`);
  }
</script>

<section aria-label="Gates">
  <h2>Gates</h2>
  <p>A gate says whom pages admit. Choose one in a page’s properties.</p>
  {#each gates as [gate, declared] (gate)}
    {@const at = toPointer(['gates', gate])}
    {@const uses = draft.definition ? usesOfGate(draft.definition, gate).length : 0}
    <fieldset>
      <legend>{gate} <span>{uses} {uses === 1 ? 'page' : 'pages'}</span></legend>
      <TextBox
        label="Roles"
        file="roles"
        when="done"
        value={(declared.roles ?? []).join(', ')}
        placeholder="any"
        help="Who has one of these, separated by commas."
        problems={draft.problemsAt(`${at}/roles`)}
        disabled={!me.mayChange}
        onset={(text) => setRoles(gate, text)}
      />
      <TextBox
        label="And only if"
        file="when"
        code
        when="done"
        value={declared.when ?? ''}
        placeholder="person.login == record.note.author"
        help="A CEL expression on person, param and record."
        problems={draft.problemsAt(`${at}/when`)}
        disabled={!me.mayChange}
        onset={(text) =>
          draft.set(`${at}/when`, text.trim() === '' ? undefined : text.trim(), `Changed the condition of the gate “${gate}”`)}
      />
      {#if me.mayChange && uses === 0}
        <div>
          <Button small look="danger" onclick={() => draft.set(at, undefined, `Removed the gate “${gate}”`)}>Remove the gate</Button>
        </div>
      {/if}
    </fieldset>
  {:else}<p>None yet.</p>{/each}
  {#if me.mayChange}
    <form onsubmit={add}>
      <input aria-label="Name of a new gate" placeholder="keepers" bind:value={name} />
      <Button type="submit" small disabled={name.trim() === ''}>Add a gate</Button>
    </form>
  {/if}
</section>

<style>
  h2 {
    font: 600 1.3rem var(--text);
  }
  p {
    margin: 0.3rem 0 0.6rem;
    color: var(--quiet);
  }
  fieldset {
    border: 0;
    border-inline-start: 3px solid var(--path);
    margin: 0 0 0.8rem;
    padding: 0 0 0 0.8rem;
    display: grid;
    gap: 0.5rem;
  }
  legend {
    font-weight: 600;
    padding: 0;
  }
  legend span {
    color: var(--quiet);
    font-weight: 400;
    font-size: 0.8125rem;
  }
  form {
    display: flex;
    gap: 0.4rem;
  }
  input {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.15rem 0.5rem;
  }
</style>
