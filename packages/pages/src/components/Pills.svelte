<script lang="ts">
  import type { Snippet } from 'svelte';

  const { legend, children }: { legend: string; children: Snippet } = $props();
</script>

<!-- Several boxes to tick, or one of several, side by side. -->
<fieldset>
  <legend>{legend}</legend>
  {@render children()}
</fieldset>

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.4rem;
    border: 0;
    margin: 0;
    padding: 0;
  }
  legend {
    font-size: 0.85rem;
    color: var(--quiet);
    padding: 0;
    margin-block-end: 0.15rem;
  }
  fieldset :global(label) {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 1rem;
    padding: 0.15rem 0.7rem;
    cursor: pointer;
  }
  fieldset :global(label:has(:checked)) {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  fieldset :global(input) {
    accent-color: var(--leaf);
  }
</style>
