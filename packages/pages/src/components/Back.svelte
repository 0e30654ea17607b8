<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: NodeOf<'back'>; live: LivePage } = $props();

  function back(event: MouseEvent) {
    if (!live.hydrated || !node.cameFrom || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    if (live.goBack()) event.preventDefault();
  }
</script>

{#if node.link.href}<p><a href={node.link.href} onclick={back}><span aria-hidden="true">←</span> {node.link.text}</a></p>{/if}

<style>
  p {
    margin-block: 0.6rem 0;
  }
</style>
