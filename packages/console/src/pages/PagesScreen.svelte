<script lang="ts">
  import EmptyState from '../controls/EmptyState.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import Outline from '../content/Outline.svelte';
  import TryPane from '../try/TryPane.svelte';
  import { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import AddressShape from './AddressShape.svelte';
  import Inspector from './Inspector.svelte';
  import PageTree from './PageTree.svelte';

  const { draft }: { draft: Draft } = $props();
  const frame = new PageInFrame();
  const definition = $derived(draft.definition);
  const page = $derived.by(() => {
    const wanted = place.text('page');
    return wanted !== undefined && definition?.pages[wanted] ? wanted : Object.keys(definition?.pages ?? {})[0];
  });
  const lost = $derived(place.text('page') !== undefined && place.text('page') !== page ? place.text('page') : undefined);
  /** On a narrow window one part is shown at a time. */
  let part: 'pages' | 'page' | 'properties' = $state('page');
  // What is selected is what one goes on with.
  let seen: string | undefined;
  $effect(() => {
    const selected = [place.text('part'), place.text('parameter'), place.text('rows')].find((one) => one !== undefined);
    const now = `${page ?? ''} ${selected ?? ''}`;
    if (seen !== undefined && seen !== now) part = selected === undefined ? 'page' : 'properties';
    seen = now;
  });
  const parts = [
    ['pages', 'Pages'],
    ['page', 'Page'],
    ['properties', 'Properties'],
  ] as const;
</script>

<div class="parts" role="group" aria-label="Part of the screen">
  {#each parts as [name, label] (name)}
    <Button small look="quiet" aria-pressed={part === name} onclick={() => (part = name)}>{label}</Button>
  {/each}
</div>
<div class="bench" data-part={part}>
  <aside class="left" aria-label="Pages and what is on the page">
    <PageTree {draft} current={page} />
    {#if page !== undefined}<Outline {draft} {page} {frame} />{/if}
  </aside>
  {#if definition && page !== undefined && definition.pages[page]}
    <main class="middle">
      {#if lost !== undefined}<p class="lost" role="status">The app has no page “{lost}”. This is “{page}”.</p>{/if}
      <AddressShape {draft} {page} />
      <TryPane {draft} {page} {frame} />
    </main>
    <section class="right" aria-label="Properties"><Inspector {draft} {page} {frame} /></section>
  {:else}
    <main class="middle">
      <EmptyState title="Add the first page"><p>The app has no pages yet. Add one on the left: it only needs a title.</p></EmptyState>
    </main>
  {/if}
</div>

<style>
  .parts {
    display: none;
    gap: 0.4rem;
    padding: 0.4rem 0.8rem;
  }
  .bench {
    display: grid;
    grid-template-columns: 15.5rem minmax(0, 1fr) 21.5rem;
    height: 100%;
    min-height: 0;
  }
  .left,
  .right {
    overflow: auto;
    min-height: 0;
    background: var(--paper);
  }
  .left {
    border-inline-end: 1px solid var(--line);
    display: grid;
    grid-template-rows: minmax(6rem, auto) minmax(8rem, 1fr);
    overflow: auto;
  }
  .right {
    border-inline-start: 1px solid var(--line);
    background: var(--sheet);
    padding: 0.7rem 0.8rem 2rem;
  }
  .middle {
    display: grid;
    grid-template-rows: auto auto minmax(0, 1fr);
    min-width: 0;
    min-height: 0;
    padding: 0.5rem 0.7rem;
    gap: 0.4rem;
  }
  .middle > :global(:last-child) {
    grid-row: 3;
  }
  .lost {
    margin: 0;
    color: var(--warn);
  }
  @media (max-width: 60rem) {
    .parts {
      display: flex;
    }
    .bench {
      display: block;
      height: auto;
    }
    .left,
    .right {
      border: 0;
    }
    .bench[data-part='pages'] > :not(.left),
    .bench[data-part='page'] > :not(.middle),
    .bench[data-part='properties'] > :not(.right) {
      display: none;
    }
    .middle {
      min-height: calc(100vh - 8rem);
    }
  }
</style>
