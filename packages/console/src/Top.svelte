<script lang="ts">
  import { place } from './place.svelte.ts';
</script>

<header>
  <img src="/~/console/icon.svg" alt="" width="28" height="28" /> <span>Pallmist</span>
  <nav aria-label="Console">
    {#each [['apps', 'Apps'], ['mails', 'Outbox']] as const as [page, text] (page)}
      <a href={place.href(page)} aria-current={place.page === page ? 'page' : undefined} onclick={(event) => place.follow(event)}>{text}</a>
    {/each}
  </nav>
</header>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 0.6rem;
    padding: 0.5rem 1.2rem;
    background: var(--sheet);
    border-block-end: 1px solid var(--line);
  }
  span {
    font: 600 1.15rem var(--text);
  }
  nav {
    display: flex;
    gap: 1.2rem;
    margin-inline-start: 1.5rem;
  }
  a {
    color: var(--ink);
    text-decoration: none;
    border-block-end: 3px solid transparent;
  }
  a[aria-current] {
    border-color: var(--leaf);
  }
</style>
