<script lang="ts">
  import type { AnyNode, NodeOf } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';

  const { node, render }: { node: NodeOf<'panel'>; render: Snippet<[AnyNode[]]> } = $props();
</script>

<section aria-label={node.label || undefined}>
  {#if node.label}<h2>{node.label}</h2>{/if}
  {@render render(node.content)}
</section>

<style>
  section {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0.4rem 1.2rem 0.8rem;
    margin-block: 1rem;
  }
  h2 {
    font-family: var(--text);
    font-size: 1.15rem;
    margin: 0.4rem 0;
  }
</style>
