<script lang="ts">
  import type { Snippet } from 'svelte';

  const { title, children }: { title: string; children: Snippet } = $props();
</script>

<!-- Where nothing is yet: what to do first. -->
<section>
  <h2>{title}</h2>
  {@render children()}
</section>

<style>
  section {
    border: 1px dashed var(--edge);
    border-radius: var(--round);
    padding: 1.2rem 1.4rem;
    max-width: 40rem;
  }
  h2 {
    font: 600 1.1rem var(--text);
    margin-block-end: 0.4rem;
  }
</style>
