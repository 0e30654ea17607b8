<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import InputBox from './InputBox.svelte';
  import Inputs from './Inputs.svelte';
  import Range from './Range.svelte';

  const { node, live }: { node: NodeOf<'input'>; live: LivePage } = $props();
</script>

{#if node.of === 'range'}<Range {node} {live} />
{:else if node.of === 'list'}<Inputs {node} {live} />
{:else}<InputBox {node} {live} />{/if}
