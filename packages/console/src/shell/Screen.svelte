<script lang="ts">
  import type { Draft } from '../draft/draft.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import PagesScreen from '../pages/PagesScreen.svelte';

  const { draft }: { draft: Draft } = $props();
  const loaders = {
    data: () => import('../data/DataScreen.svelte'),
    map: () => import('../map/MapScreen.svelte'),
    people: () => import('../people/PeopleScreen.svelte'),
    mails: () => import('../mails/MailsScreen.svelte'),
    words: () => import('../words/WordsScreen.svelte'),
    settings: () => import('../settings/SettingsScreen.svelte'),
    promises: () => import('../links/LinksScreen.svelte'),
    visits: () => import('../links/VisitsScreen.svelte'),
    links: () => import('../links/ShortAddressesScreen.svelte'),
    file: () => import('../file/FileScreen.svelte'),
    publish: () => import('../publish/PublishScreen.svelte'),
    problems: () => import('../problems/ProblemsScreen.svelte'),
    webhooks: () => import('../team/WebhooksScreen.svelte'),
    log: () => import('../team/LogScreen.svelte'),
  };
  /** A text that is not well-formed can only be looked at as a file. */
  const page = $derived(draft.brokenText !== undefined || draft.definition === undefined ? 'file' : place.page);
  const loader = $derived(page in loaders ? loaders[page as keyof typeof loaders] : undefined);
</script>

<div class="screen">
  {#if loader === undefined}
    <PagesScreen {draft} />
  {:else}
    {#await loader()}
      <p class="wait">Opening …</p>
    {:then { default: Loaded }}
      <Loaded {draft} />
    {:catch}
      <p class="wait" role="alert">This part of the console did not load. Check your connection, then reload the page.</p>
    {/await}
  {/if}
</div>

<style>
  .screen {
    min-height: 0;
    overflow: auto;
  }
  .wait {
    padding: 2rem;
  }
</style>
