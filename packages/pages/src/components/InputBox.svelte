<script lang="ts">
  import type { BoxNode } from '@pallmist/app/view';
  import { boxAttributes, boxValue } from '../box-value.ts';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';

  const { node, live }: { node: BoxNode; live: LivePage } = $props();

  function changed(box: HTMLInputElement) {
    // The browser says beside the box what is wrong with it; the address keeps the last value that was right.
    if (live.hydrated && box.reportValidity()) live.change({ [node.name]: boxValue(box) });
  }
</script>

<Filter form={node.form} {live}>
  <Labelled label={node.label}>
    <input {...boxAttributes(node)} name={node.name} value={node.value} onchange={({ currentTarget }) => changed(currentTarget)} />
  </Labelled>
</Filter>
