<script lang="ts">
  import type { Snippet } from 'svelte';

  const { label, children }: { label: string; children: Snippet } = $props();
</script>

<!-- The look of every box and list to choose from, with its label above it. -->
<label><span>{label}</span>{@render children()}</label>

<style>
  label {
    display: grid;
    gap: 0.15rem;
    min-width: 0;
  }
  span {
    font-size: 0.85rem;
    color: var(--quiet);
  }
  label :global(:is(input, select, textarea)) {
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0.3rem 0.6rem;
    min-height: 2.5rem;
    max-width: 100%;
  }
  label :global([aria-invalid='true']) {
    border-color: var(--bad);
    box-shadow: inset 0 0 0 1px var(--bad);
  }
</style>
