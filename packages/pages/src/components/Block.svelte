<script lang="ts">
  import type { AnyNode, NodeOf } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';

  const { node, render }: { node: NodeOf<'block'>; render: Snippet<[AnyNode[]]> } = $props();
</script>

{@render render(node.content)}
