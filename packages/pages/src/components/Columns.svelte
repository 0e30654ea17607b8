<script lang="ts">
  import type { AnyNode, NodeOf } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';

  const { node, render }: { node: NodeOf<'columns'>; render: Snippet<[AnyNode[]]> } = $props();
</script>

<div class="columns {node.widths}">
  {#each node.content as column, index (index)}
    <div>{@render render([column])}</div>
  {/each}
</div>

<style>
  .columns {
    display: grid;
    gap: 0 1.6rem;
    grid-template-columns: repeat(auto-fit, minmax(min(15rem, 100%), 1fr));
    align-items: start;
  }
  .columns > div {
    min-width: 0;
  }
  @media (min-width: 48rem) {
    .side-first {
      grid-template-columns: minmax(12rem, 1fr) 3fr;
    }
    .side-last {
      grid-template-columns: 3fr minmax(12rem, 1fr);
    }
  }
</style>
