<script lang="ts">
  import { addChoices, addCollection, pagesForCollection } from '@pallmist/app/editing';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import EmptyState from '../controls/EmptyState.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import ChoicesEditor from './ChoicesEditor.svelte';
  import FieldsEditor from './FieldsEditor.svelte';
  import RecordGrid from './RecordGrid.svelte';

  const { draft }: { draft: Draft } = $props();
  const collections = $derived(Object.keys(draft.definition?.collections ?? {}));
  const lists = $derived(Object.keys(draft.definition?.choices ?? {}));
  const collection = $derived.by(() => {
    const wanted = place.text('collection');
    return wanted !== undefined && collections.includes(wanted) ? wanted : collections[0];
  });
  const part = $derived(place.text('part') ?? 'records');
  const list = $derived(place.text('field') !== undefined && place.text('collection') === undefined ? place.text('field') : undefined);
  let adding: 'collection' | 'list' | undefined = $state();

  function add(title: string) {
    const { definition } = draft;
    if (!definition) return false;
    let taken: boolean;
    if (adding === 'collection') {
      const made = addCollection(definition, title);
      taken = draft.edit(made.patch, `Added the collection “${made.name}”`);
      if (taken) place.change({ collection: made.name, part: 'fields' });
    } else {
      const made = addChoices(definition, title, { first: 'First', second: 'Second' });
      taken = draft.edit(made.patch, `Added the choices list “${made.name}”`);
    }
    if (taken) adding = undefined;
    return taken;
  }
  async function makePages() {
    if (!draft.definition || collection === undefined) return;
    const first = await client.call('findRecords', { app: draft.app, collection }, { size: 1 }).catch(() => undefined);
    const sample = first?.records[0]?.[draft.definition.collections?.[collection]?.keyField ?? ''];
    const made = pagesForCollection(draft.definition, collection, { sample });
    if (draft.edit(made.patch, `Made pages for “${collection}”`)) place.open('pages', { app: draft.app, page: made.list });
  }
</script>

<div class="bench">
  <aside>
    <div class="head">
      <h2>Collections</h2>
      {#if me.mayChange}<Button small look="quiet" onclick={() => (adding = adding === 'collection' ? undefined : 'collection')}
          >Add a collection</Button
        >{/if}
    </div>
    {#if adding !== undefined}
      <AddForm
        label={adding === 'collection' ? 'What its records are called' : 'What the choices list is called'}
        placeholder={adding === 'collection' ? 'Tools' : 'Status'}
        button="Add"
        focus
        onadd={add}
      />
    {/if}
    <ul>
      {#each collections as name (name)}
        <li>
          <a
            href={place.href('data', { app: draft.app, collection: name, part })}
            aria-current={name === collection ? 'page' : undefined}
            onclick={(event) => place.follow(event)}>{name}</a
          >
        </li>
      {/each}
    </ul>
    <div class="head">
      <h2>Choices lists</h2>
      {#if me.mayChange}<Button small look="quiet" onclick={() => (adding = adding === 'list' ? undefined : 'list')}>Add a list</Button
        >{/if}
    </div>
    {#each lists as name (name)}<ChoicesEditor {draft} list={name} open={list === name} />{:else}<p>
        None yet. A choices list holds the values of a choice: a status, a tab.
      </p>{/each}
  </aside>
  <main>
    {#if collection === undefined}
      <EmptyState title="Add the first collection">
        <p>A collection holds the records of one kind: tools, plants, bookings. Add one on the left, then its fields.</p>
      </EmptyState>
    {:else}
      <div class="title">
        <h1>{collection}</h1>
        <div role="group" aria-label="Part of the collection">
          <Button small look="quiet" aria-pressed={part === 'records'} onclick={() => place.change({ part: 'records' })}>Records</Button>
          <Button small look="quiet" aria-pressed={part === 'fields'} onclick={() => place.change({ part: 'fields' })}>Fields</Button>
        </div>
        {#if me.mayChange}<Button small onclick={makePages}>Make pages for it</Button>{/if}
      </div>
      {#if part === 'fields'}{#key collection}<FieldsEditor {draft} {collection} />{/key}
      {:else}{#key collection}<RecordGrid {draft} {collection} />{/key}{/if}
    {/if}
  </main>
</div>

<style>
  .bench {
    display: grid;
    grid-template-columns: 17rem minmax(0, 1fr);
    height: 100%;
    min-height: 0;
  }
  aside {
    border-inline-end: 1px solid var(--line);
    padding: 0.6rem;
    overflow: auto;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-block: 0.2rem;
  }
  h2 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
  }
  ul {
    list-style: none;
    margin: 0 -0.6rem 0.8rem;
    padding: 0;
  }
  a {
    display: block;
    padding: 0.2rem 0.6rem;
    color: inherit;
    text-decoration: none;
    border-inline-start: 3px solid transparent;
    overflow-wrap: anywhere;
  }
  a[aria-current] {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  p {
    margin: 0;
    color: var(--quiet);
    font-size: 0.875rem;
  }
  main {
    padding: 0.8rem 1rem;
    overflow: auto;
    min-width: 0;
  }
  .title {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.5rem 1rem;
    margin-block-end: 0.6rem;
  }
  h1 {
    font: 600 1.2rem var(--text);
  }
  @media (max-width: 50rem) {
    .bench {
      grid-template-columns: minmax(0, 1fr);
      height: auto;
    }
    aside {
      border: 0;
      border-block-end: 1px solid var(--line);
    }
  }
</style>
