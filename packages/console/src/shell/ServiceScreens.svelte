<script lang="ts">
  import Apps from '../start/Apps.svelte';
  import Keys from '../team/Keys.svelte';
  import Outbox from '../mails/Outbox.svelte';
  import Team from '../team/Team.svelte';
  import { me } from '../service/me.svelte.ts';
  import { client } from '../service/calls.ts';
  import { place, type ConsolePage } from '../service/place.svelte.ts';
  import Button from '../controls/Button.svelte';

  const screens = $derived(
    (
      [
        ['apps', 'Apps'],
        ['outbox', 'Outbox'],
        ['team', 'Team'],
        ['keys', 'Keys and sessions'],
      ] as [ConsolePage, string][]
    ).filter(([page]) => page !== 'keys' || me.isOwner),
  );
  const names: Partial<Record<ConsolePage, string>> = { new: 'New app' };

  $effect(() => {
    document.title = `${names[place.page] ?? screens.find(([page]) => page === place.page)?.[1] ?? 'Apps'} · Pallmist`;
  });

  async function leave() {
    await client.call('leaveConsole', {}).catch(() => undefined);
    window.location.assign('/~/console/');
  }
</script>

<header>
  <span class="mark"><img src="/~/console/icon.svg" alt="" width="26" height="26" /> Pallmist</span>
  <nav aria-label="Console">
    {#each screens as [page, text] (page)}
      <a
        href={place.href(page)}
        aria-current={place.page === page || (page === 'apps' && place.page === 'new') ? 'page' : undefined}
        onclick={(event) => place.follow(event)}>{text}</a
      >
    {/each}
  </nav>
  <a class="guides" href="/~/docs" target="_blank" rel="noopener">Guides</a>
  <span class="me">{me.builder?.name} <Button look="quiet" small onclick={leave}>Sign out</Button></span>
</header>
<main>
  {#if place.page === 'new'}
    {#await import('../start/NewApp.svelte') then { default: NewApp }}<NewApp />{/await}
  {:else if place.page === 'outbox'}<Outbox />
  {:else if place.page === 'team'}<Team />
  {:else if place.page === 'keys'}<Keys />
  {:else}<Apps />{/if}
</main>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 1.4rem;
    padding: 0.5rem 1.2rem;
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
  }
  .mark {
    display: flex;
    align-items: center;
    gap: 0.5rem;
    font: 600 1.1rem var(--text);
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 1.1rem;
  }
  nav a {
    color: var(--ink);
    text-decoration: none;
    padding-block: 0.15rem;
    border-block-end: 3px solid transparent;
  }
  nav a[aria-current] {
    border-color: var(--leaf);
  }
  .guides {
    margin-inline-start: auto;
  }
  .me {
    color: var(--quiet);
    font-size: 0.875rem;
  }
  main {
    max-width: 70rem;
    margin: 1.5rem auto;
    padding: 0 1.2rem;
  }
</style>
