<script lang="ts">
  import { onDestroy } from 'svelte';
  import Button from '../controls/Button.svelte';
  import { Draft } from '../draft/draft.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import ConflictDialog from './ConflictDialog.svelte';
  import Screen from './Screen.svelte';
  import TopBar from './TopBar.svelte';
  import { shortcuts } from './shortcuts.ts';

  const { app }: { app: string } = $props();
  // svelte-ignore state_referenced_locally -- another app gets a workbench of its own
  const draft = new Draft(app);
  void draft.open();
  onDestroy(() => {
    draft.close();
  });

  let searching = $state(false);
  let listingKeys = $state(false);

  const keyed = shortcuts({
    undo: () => draft.undo(),
    redo: () => draft.redo(),
    search: () => (searching = true),
    keys: () => (listingKeys = true),
    save: () => void draft.flush(),
  });

  function leaving(event: BeforeUnloadEvent) {
    // The browser stores unsent changes and sends them on the next visit. The warning still helps the builder to stay online.
    if (!draft.saved && !draft.connected) event.preventDefault();
  }
</script>

<svelte:window onkeydown={keyed} onbeforeunload={leaving} />

<div class="frame">
  <TopBar {draft} onsearch={() => (searching = true)} onkeys={() => (listingKeys = true)} />
  {#if draft.refused !== undefined}
    <p class="bar bad" role="alert">
      {draft.refused}
      <Button small onclick={() => (draft.refused = undefined)}>Close</Button>
    </p>
  {/if}
  {#if draft.failure !== undefined}
    <main class="alone">
      <p role="alert">{draft.failure}</p>
      <p>
        <Button onclick={() => draft.load()}>Try again</Button>
        <a href={place.href('apps')} onclick={(event) => place.follow(event)}>All apps</a>
      </p>
    </main>
  {:else if !draft.loaded}
    <main class="alone"><p>Fetching the draft …</p></main>
  {:else}
    <Screen {draft} />
  {/if}
</div>

{#if draft.conflict}<ConflictDialog {draft} conflict={draft.conflict} />{/if}
{#if searching}
  {#await import('./CommandSearch.svelte') then { default: CommandSearch }}
    <CommandSearch {draft} onclose={() => (searching = false)} onkeys={() => (listingKeys = true)} />
  {/await}
{/if}
{#if listingKeys}
  {#await import('./KeyList.svelte') then { default: KeyList }}<KeyList onclose={() => (listingKeys = false)} />{/await}
{/if}

<style>
  .frame {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto auto minmax(0, 1fr);
    height: 100vh;
  }
  .bar {
    grid-row: 2;
    margin: 0;
    padding: 0.4rem 1rem;
  }
  .bad {
    background: var(--bad-soft);
    color: var(--bad);
  }
  .frame > :global(:last-child) {
    grid-row: 3;
  }
  .alone {
    padding: 2rem;
  }
  @media (max-width: 60rem) {
    .frame {
      height: auto;
      min-height: 100vh;
    }
  }
</style>
