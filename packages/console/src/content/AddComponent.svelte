<script lang="ts">
  import { componentKinds, insertComponent, newComponent } from '@pallmist/app/editing';
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { componentPictures } from './component-pictures.ts';

  interface Props {
    draft: Draft;
    page: string;
    /** JSON Pointer of the list that it is put into. */
    list: string;
    index: number | undefined;
    onclose: () => void;
    onadded: (pointer: string) => void;
  }
  const { draft, page, list, index, onclose, onadded }: Props = $props();
  let wanted = $state('');
  const fits = $derived(
    componentKinds.filter(
      ({ label, sentence, name }) =>
        (name !== 'block' || draft.definition?.blocks !== undefined) &&
        `${label} ${sentence} ${name}`.toLowerCase().includes(wanted.trim().toLowerCase()),
    ),
  );

  function add(show: string, label: string) {
    if (!draft.definition) return;
    const patch = insertComponent(draft.definition, list, newComponent(draft.definition, page, show), index);
    if (!draft.edit(patch, `Added a ${label.toLowerCase()}`)) return;
    const pointer = patch[0]?.path ?? list;
    onadded(pointer === list ? `${list}/0` : pointer);
  }
</script>

<Modal title="Add a component" size="wide" {onclose}>
  <input
    type="search"
    aria-label="Find a component"
    placeholder="Find: table, form, tabs"
    bind:value={wanted}
    onkeydown={(event) => {
      const [first] = fits;
      if (event.key !== 'Enter' || !first) return;
      // Else the same press would go on to the button that has the focus when the dialog is gone.
      event.preventDefault();
      add(first.name, first.label);
    }}
  />
  <ul>
    {#each fits as kind (kind.name)}
      <li>
        <button type="button" onclick={() => add(kind.name, kind.label)}>
          <svg viewBox="0 0 48 30" width="64" height="40" aria-hidden="true">
            {#each componentPictures[kind.name] ?? [] as [x, y, width, height, tone], mark (mark)}
              <rect {x} {y} {width} {height} rx="1" class={tone ?? 'soft'} />
            {/each}
          </svg>
          <span><strong>{kind.label}</strong> <code>{kind.name}</code><br />{kind.sentence}</span>
        </button>
      </li>
    {:else}
      <li role="status">No component fits “{wanted}”.</li>
    {/each}
  </ul>
</Modal>

<style>
  input {
    width: 100%;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
    padding: 0.35rem 0.6rem;
    margin-block-end: 0.6rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(17rem, 100%), 1fr));
    gap: 0.4rem;
  }
  button {
    display: flex;
    gap: 0.7rem;
    align-items: center;
    text-align: start;
    width: 100%;
    height: 100%;
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--paper);
    padding: 0.4rem 0.6rem;
    cursor: pointer;
    font-size: 0.8125rem;
  }
  button:hover {
    border-color: var(--leaf);
    background: var(--leaf-soft);
  }
  strong {
    font-size: 0.9375rem;
  }
  code {
    color: var(--quiet);
    font-size: 0.75rem;
  }
  svg {
    flex: none;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 2px;
  }
  .strong {
    fill: var(--leaf);
  }
  .soft {
    fill: var(--line);
  }
  .line {
    fill: none;
    stroke: var(--edge);
    stroke-width: 1;
  }
</style>
