<script lang="ts">
  import type { Snippet } from 'svelte';
  import Top from './Top.svelte';

  const { children }: { children: Snippet } = $props();
</script>

<!-- A page of the console other than the editor: its head, and one column. -->
<Top />
<main>{@render children()}</main>

<style>
  main {
    max-width: 66rem;
    margin: 2rem auto;
    padding: 0 1.2rem;
    overflow-x: auto;
  }
  main :global(:is(h1, h2)) {
    font-family: var(--text);
    margin: 0 0 0.6rem;
  }
</style>
