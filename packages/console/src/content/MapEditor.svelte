<script lang="ts">
  import { toPointer, type Problem } from '@pallmist/app/address';
  import { valueAt, type Component } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import { collectionShownBy } from './collection-of.ts';
  import ValueBox from './ValueBox.svelte';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    label: string;
    file: string;
    help: string | undefined;
    problems: readonly Problem[];
    pointer: string;
    row: string | undefined;
    component: Component;
  }
  const { draft, page, frame, label, file, help, problems, pointer, row, component }: Props = $props();
  const entries = $derived(Object.entries((valueAt(draft.data, pointer) as Record<string, unknown> | undefined) ?? {}));
  let name = $state('');
  const fields = $derived(
    file === 'set'
      ? Object.keys(draft.definition?.collections?.[collectionShownBy(draft.definition, page, component) ?? '']?.fields ?? {})
      : [],
  );
  const below = (key: string) => pointer + toPointer([key]);

  function add(event: SubmitEvent) {
    event.preventDefault();
    if (!/^[A-Za-z][\w-]*$/.test(name)) return;
    draft.set(below(name), '', `Added “${name}” to “${label.toLowerCase()}”`);
    name = '';
  }
</script>

<fieldset>
  <legend>{label} <code>{file}</code></legend>
  {#each problems as problem (problem.code)}<p class="bad">{problem.message}</p>{/each}
  {#each entries as [key, value] (key)}
    <div class="line">
      <ValueBox
        {draft}
        {page}
        {frame}
        label={key}
        {row}
        into="value"
        problems={draft.problemsAt(below(key))}
        value={String(value as string)}
        onset={(next) => draft.set(below(key), next, `Changed “${key}”`)}
      />
      {#if me.mayChange}
        <Button small look="quiet" aria-label="Remove {key}" onclick={() => draft.set(below(key), undefined, `Removed “${key}”`)}
          >Remove</Button
        >
      {/if}
    </div>
  {/each}
  {#if help}<p>{help}</p>{/if}
  {#if me.mayChange}
    <form onsubmit={add}>
      <input aria-label="Name of what is added to {label.toLowerCase()}" list="map-{file}" bind:value={name} placeholder="name" />
      <datalist id="map-{file}"
        >{#each fields as field (field)}<option value={field}></option>{/each}</datalist
      >
      <Button type="submit" small disabled={!/^[A-Za-z][\w-]*$/.test(name)}>Add</Button>
    </form>
  {/if}
</fieldset>

<style>
  fieldset {
    border: 0;
    border-inline-start: 2px solid var(--line);
    margin: 0;
    padding: 0 0 0 0.6rem;
    display: grid;
    gap: 0.4rem;
    min-width: 0;
  }
  legend {
    font-weight: 600;
    font-size: 0.875rem;
    padding: 0;
  }
  code {
    color: var(--quiet);
    font-size: 0.75rem;
    font-weight: 400;
  }
  .line {
    display: flex;
    gap: 0.3rem;
    align-items: end;
  }
  .line > :global(.field) {
    flex: 1;
  }
  form {
    display: flex;
    gap: 0.3rem;
  }
  input {
    flex: 1;
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.1rem 0.4rem;
  }
  p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .bad {
    color: var(--bad);
  }
</style>
