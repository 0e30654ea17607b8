<script lang="ts">
  import { enterByLink } from './calls.ts';
  import Apps from './Apps.svelte';
  import Visits from './Visits.svelte';
  import Mails from './Mails.svelte';
  import { place } from './place.svelte.ts';
  import DraftEditorView from './DraftEditorView.svelte';

  const entered = enterByLink();
  const app = $derived(place.page === 'editor' ? place.text('app') : undefined);
</script>

{#await entered}
  <p class="wait">Opening the console …</p>
{:then refused}
  {#if refused}
    <main>
      <h1>The console did not open</h1>
      <p>{refused}</p>
      <p><a href="/~/console/">Try without the link</a></p>
    </main>
  {:else if app !== undefined}
    {#key app}<DraftEditorView {app} />{/key}
  {:else if place.page === 'mails'}<Mails />
  {:else if place.page === 'visits'}<Visits app={place.text('app') ?? ''} />
  {:else}
    <Apps />
  {/if}
{/await}

<style>
  .wait,
  main {
    max-width: 40rem;
    margin: 4rem auto;
    padding: 0 1.2rem;
  }
  h1 {
    font-family: var(--text);
  }
</style>
