<script lang="ts">
  import Button from '../controls/Button.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import { screenGuides } from '../controls/guides.ts';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import { LinkCount } from '../publish/link-count.svelte.ts';
  import { sections } from './sections.ts';

  interface Props {
    draft: Draft;
    onsearch: () => void;
    onkeys: () => void;
  }
  const { draft, onsearch, onkeys }: Props = $props();

  // svelte-ignore state_referenced_locally
  const links = new LinkCount(draft);
  const title = $derived(draft.definition?.title ?? draft.app);
  const state = $derived(
    draft.conflict
      ? 'waits for you'
      : !draft.connected
        ? draft.saved
          ? 'not connected'
          : `not connected, ${draft.pending.length} ${draft.pending.length === 1 ? 'change waits' : 'changes wait'} here`
        : draft.saved
          ? 'saved'
          : 'saving …',
  );
  const shown = $derived(sections.find(({ page }) => page === place.page));
  const others = $derived([...new Set(draft.here)].filter((name) => name !== me.builder?.name));

  $effect(() => {
    document.title = `${shown === undefined ? '' : `${shown.label} · `}${title} · Pallmist`;
  });
</script>

<header>
  <a class="back" href={place.href('apps')} onclick={(event) => place.follow(event)}>Apps</a>
  <h1>{title}</h1>
  <nav aria-label="Parts of the app">
    {#each sections.filter(({ within }) => within === undefined) as section (section.page)}
      <a
        href={place.href(section.page, { app: draft.app })}
        title={section.sentence}
        aria-current={place.page === section.page ? 'page' : shown?.within === section.page ? 'true' : undefined}
        onclick={(event) => place.follow(event)}>{section.label}</a
      >
    {/each}
  </nav>
  <div class="state">
    <span role="status" class:lost={!draft.connected}>{state}</span>
    {#if draft.notice !== undefined}<span class="notice" role="status" title={draft.notice}>{draft.notice}</span>{/if}
    {#if others.length > 0}<span class="notice">also here: {others.join(', ')}</span>{/if}
    <Button look="quiet" small disabled={draft.undoable === undefined} title={draft.undoable} onclick={() => draft.undo()}>Undo</Button>
    <Button look="quiet" small disabled={draft.redoable === undefined} title={draft.redoable} onclick={() => draft.redo()}>Redo</Button>
    <Button look="quiet" small onclick={onsearch}>Find <kbd>Ctrl K</kbd></Button>
    <Button look="quiet" small onclick={onkeys} aria-label="List of keys"><kbd>?</kbd></Button>
    <GuideLink to={screenGuides[place.page] ?? 'console'} about={shown?.label ?? 'the console'} />
    <a
      class="problems"
      class:errors={draft.errors > 0}
      href={place.href('problems', { app: draft.app })}
      aria-current={place.page === 'problems' ? 'page' : undefined}
      onclick={(event) => place.follow(event)}
    >
      {draft.errors + draft.warnings === 0
        ? 'no problems'
        : draft.errors > 0
          ? `${draft.errors} ${draft.errors === 1 ? 'error' : 'errors'}`
          : `${draft.warnings} ${draft.warnings === 1 ? 'warning' : 'warnings'}`}
    </a>
    <a
      class="publish"
      href={place.href('publish', { app: draft.app })}
      aria-current={place.page === 'publish' ? 'page' : undefined}
      title={links.open === 0 ? undefined : `Changes of what earlier addresses mean: ${links.open}`}
      onclick={(event) => place.follow(event)}
      >Publish{#if links.open > 0}&nbsp;<span class="count">{links.open}</span>{/if}</a
    >
  </div>
</header>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.2rem 0.7rem;
    padding: 0.35rem 0.8rem;
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
  }
  .back {
    font-size: 0.875rem;
  }
  h1 {
    font: 600 1.05rem var(--text);
    max-width: 18rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.1rem 0.6rem;
  }
  nav a {
    color: var(--ink);
    text-decoration: none;
    font-size: 0.8125rem;
    padding-block: 0.15rem;
    border-block-end: 3px solid transparent;
  }
  nav a[aria-current] {
    border-color: var(--leaf);
  }
  .state {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.25rem 0.5rem;
    margin-inline-start: auto;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .lost {
    color: var(--bad);
    font-weight: 600;
  }
  .notice {
    max-width: 14rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  kbd {
    font: 0.75rem var(--code);
    border: 1px solid var(--line);
    border-radius: 3px;
    padding: 0 0.25rem;
  }
  .problems,
  .publish {
    text-decoration: none;
    border-radius: var(--round);
    padding: 0.15rem 0.6rem;
    border: 1px solid var(--line);
    color: var(--ink);
  }
  .errors {
    border-color: var(--bad);
    color: var(--bad);
  }
  .publish {
    background: var(--leaf);
    border-color: var(--leaf);
    color: var(--on-leaf);
  }
  .count {
    display: inline-block;
    min-width: 1.1rem;
    margin-inline-start: 0.35rem;
    padding-inline: 0.25rem;
    border-radius: 0.6rem;
    background: var(--on-leaf);
    color: var(--leaf);
    font-size: 0.75rem;
    text-align: center;
  }
  @media (max-width: 40rem) {
    nav {
      flex-wrap: nowrap;
      min-width: 0;
      overflow-x: auto;
      width: 100%;
      order: 3;
      white-space: nowrap;
    }
    .state {
      margin-inline-start: 0;
    }
  }
</style>
