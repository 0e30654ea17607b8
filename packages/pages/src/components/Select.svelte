<script lang="ts">
  import type { SelectNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';

  const { node, live }: { node: SelectNode; live: LivePage } = $props();

  function chosen(event: Event) {
    if (!live.taken || !(event.target instanceof HTMLSelectElement)) return;
    live.change({ [node.name]: event.target.value === '' ? undefined : event.target.value });
  }
</script>

<Filter form={node.form} {live}>
  <label>
    <span>{node.label}</span>
    <select name={node.name} value={node.value} onchange={chosen}>
      {#each node.options as option (option.value)}
        <option value={option.value} selected={option.value === node.value}>{option.text}</option>
      {/each}
    </select>
  </label>
</Filter>

<style>
  label {
    display: grid;
    gap: 0.15rem;
  }
  span {
    font-size: 0.85rem;
    color: var(--quiet);
  }
  select {
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0 0.5rem;
    height: 2.5rem;
    max-width: 16rem;
  }
</style>
