<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { freeName, identifierOf } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft, page }: { draft: Draft; page: string } = $props();
  const rows = $derived(Object.entries(draft.definition?.pages[page]?.rows ?? {}));
  const collections = $derived(Object.keys(draft.definition?.collections ?? {}));
  let from = $state('');

  function add() {
    const collection = from || collections[0];
    if (collection === undefined) return;
    const name = freeName(
      identifierOf(collection, 'found'),
      rows.map(([one]) => one),
    );
    if (draft.set(toPointer(['pages', page, 'rows', name]), { from: collection }, `Added the rows “${name}”`)) place.change({ rows: name });
  }
</script>

<section>
  <h3>Rows it reads</h3>
  <ul>
    {#each rows as [name, read] (name)}
      <li>
        <a href={place.href('pages', { app: draft.app, page, rows: name })} onclick={(event) => place.follow(event)}>{name}</a>
        <span
          >of {read.from}{read.where?.length ? `, ${read.where.length} ${read.where.length === 1 ? 'condition' : 'conditions'}` : ''}</span
        >
      </li>
    {:else}<li class="quiet">None yet. Tables, lists and charts show rows of a collection.</li>{/each}
  </ul>
  {#if me.mayChange && collections.length > 0}
    <div class="add">
      <select aria-label="Collection" value={from || collections[0]} onchange={({ currentTarget }) => (from = currentTarget.value)}
        >{#each collections as name (name)}<option value={name}>{name}</option>{/each}</select
      >
      <Button small onclick={add}>Add rows</Button>
    </div>
  {/if}
</section>

<style>
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.2rem;
  }
  ul {
    list-style: none;
    margin: 0 0 0.3rem;
    padding: 0;
    font-size: 0.875rem;
  }
  span,
  .quiet {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  .add {
    display: flex;
    gap: 0.4rem;
  }
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    min-width: 0;
  }
</style>
