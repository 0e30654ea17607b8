<script lang="ts">
  import Content from './components/Content.svelte';
  import Frame from './Frame.svelte';
  import type { LivePage } from './live-page.ts';

  const { live }: { live: LivePage } = $props();
  const shown = $derived(live.shown);
</script>

<Frame
  say={shown.say}
  appTitle={shown.appTitle}
  home={shown.home}
  navigation={shown.navigation}
  person={shown.person}
  signInHref={shown.signInHref}
  draft={shown.draft}
  look={shown.look}
  logo={shown.logo}
  footer={shown.footer}
>
  {#each shown.notices as notice (notice)}
    <p class="notice" role="status">{notice} {shown.say('The page is shown without it.')}</p>
  {/each}
  {#each shown.arrival as notice (notice)}<p class="notice said" role="status">{notice}</p>{/each}
  {#if live.said}<p class="notice said" role="status">{live.said}</p>{/if}
  {#if live.hydrated}<p class="visually-hidden" aria-live="polite">{live.announced}</p>{/if}
  {#if live.failure}
    <p class="notice" role="alert">{live.failure} <button onclick={() => live.retry()}>{shown.say('Try again')}</button></p>
  {/if}
  <!-- Another page is drawn from the start, so that nothing typed in one stays in the other. -->
  {#key live.name}<Content content={shown.content} {live} />{/key}
</Frame>

<style>
  .notice {
    border-inline-start: 0.3rem solid var(--warn);
    background: var(--warn-soft);
    padding: 0.6rem 0.9rem;
    border-radius: var(--round);
    overflow-wrap: anywhere;
  }
  .said {
    border-color: var(--good);
    background: var(--good-soft);
  }
  button {
    background: none;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0.1rem 0.7rem;
    cursor: pointer;
  }
</style>
