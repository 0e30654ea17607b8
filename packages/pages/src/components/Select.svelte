<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';

  const { node, live }: { node: NodeOf<'select'>; live: LivePage } = $props();

  function chosen(event: Event) {
    if (!live.hydrated || !(event.target instanceof HTMLSelectElement)) return;
    live.enter(node.name, event.target.value);
  }
</script>

<Filter form={node.form} {live}>
  <Labelled label={node.label}>
    <select name={node.name} value={node.value} onchange={chosen}>
      {#each node.options as option (option.value)}
        <option value={option.value}>{option.text}</option>
      {/each}
    </select>
  </Labelled>
</Filter>

<style>
  select {
    max-width: 16rem;
  }
</style>
