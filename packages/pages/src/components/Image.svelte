<script lang="ts">
  import type { ImageNode } from '@pallmist/app/view';

  const { node }: { node: ImageNode } = $props();
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
