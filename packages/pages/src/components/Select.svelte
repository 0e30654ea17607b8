<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';

  const {
    node,
    live,
    asValue = (text) => text,
  }: {
    node: NodeOf<'select'>;
    live: LivePage;
    /** The value of what was chosen; undefined for nothing in particular. */
    asValue?: (text: string) => string | number;
  } = $props();

  function chosen(event: Event) {
    if (!live.hydrated || !(event.target instanceof HTMLSelectElement)) return;
    live.change({ [node.name]: event.target.value === '' ? undefined : asValue(event.target.value) });
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
