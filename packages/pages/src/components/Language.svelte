<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: NodeOf<'language'>; live: LivePage } = $props();
</script>

<nav aria-label={node.label}>
  {#each node.languages as language (language.tag)}
    <a
      href={language.href}
      lang={language.tag}
      hreflang={language.tag}
      aria-current={language.current ? 'true' : undefined}
      onclick={follow(live, language)}>{language.text}</a
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    margin-block: 0.6rem;
  }
  a {
    padding: 0.15rem 0.7rem;
    border: 1px solid var(--line);
    border-radius: 1rem;
    background: var(--sheet);
    text-decoration: none;
  }
  a[aria-current] {
    border-color: var(--leaf);
    background: var(--leaf-soft);
  }
</style>
