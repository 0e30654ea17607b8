<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';

  const { node }: { node: NodeOf<'image'> } = $props();
</script>

{#if node.source}<img src={node.source} alt={node.alt} width={node.width} />{/if}

<style>
  img {
    display: block;
    margin-block: 0.6rem;
    max-width: 100%;
    height: auto;
    border-radius: var(--round);
  }
</style>
