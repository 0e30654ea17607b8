<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** The heading. A screen of columns has its headings in them. */
    title?: string;
    columns?: boolean;
    children: Snippet;
  }
  const { title, columns = false, children }: Props = $props();
</script>

<main class:columns>
  {#if title !== undefined}<h1>{title}</h1>{/if}
  {@render children()}
</main>

<style>
  main {
    max-width: 60rem;
    margin-inline: auto;
    padding: 1rem 1.2rem;
    overflow-x: auto;
  }
  .columns {
    max-width: 80rem;
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
    gap: 2rem;
  }
  h1 {
    font: 600 1.3rem var(--text);
    margin-block-end: 0.4rem;
  }
</style>
