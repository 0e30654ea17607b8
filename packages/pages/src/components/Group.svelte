<script lang="ts">
  import type { Snippet } from 'svelte';

  const { legend, children }: { legend: string; children: Snippet } = $props();
</script>

<!-- Boxes that belong together, side by side under one legend. -->
<fieldset>
  <legend>{legend}</legend>
  {@render children()}
</fieldset>

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    border: 0;
    margin: 0;
    padding: 0;
    min-width: 0;
  }
  legend {
    padding: 0;
    font-size: 0.85rem;
    color: var(--quiet);
  }
</style>
