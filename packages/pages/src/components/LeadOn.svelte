<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: NodeOf<'lead-on'>; live: LivePage } = $props();

  // The service leads on by itself; here a change in the browser has made the condition hold.
  $effect(() => {
    if (live.hydrated && node.says === undefined && node.href !== undefined) live.open(node.href);
  });
</script>

{#if node.says}
  <p>
    {node.says}
    {#if node.href}<a href={node.href}>{node.href}</a>{/if}
  </p>
{/if}

<style>
  p {
    border: 1px dashed var(--edge);
    border-radius: var(--round);
    padding: 0.6rem 0.9rem;
    overflow-wrap: anywhere;
  }
</style>
