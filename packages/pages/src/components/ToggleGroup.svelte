<script lang="ts">
  import type { Snippet } from 'svelte';
  import Group from './Group.svelte';

  const { legend, children }: { legend: string; children: Snippet } = $props();
</script>

<!-- Several boxes to tick, or one of several, side by side. -->
<div><Group {legend}>{@render children()}</Group></div>

<style>
  div :global(label) {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 1rem;
    padding: 0.15rem 0.7rem;
    cursor: pointer;
  }
  div :global(label:has(:checked)) {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  div :global(label:has(:disabled)) {
    color: var(--quiet);
    cursor: default;
  }
  div :global(input) {
    accent-color: var(--leaf);
  }
</style>
