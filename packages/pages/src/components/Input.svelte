<script lang="ts">
  import type { InputNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';

  const { node, live }: { node: InputNode; live: LivePage } = $props();

  function changed(box: HTMLInputElement) {
    // The browser says beside the box what is wrong with it; the address keeps the last value that was right.
    if (!live.taken || !box.reportValidity()) return;
    const value = box.value === '' ? undefined : node.kind === 'number' ? box.valueAsNumber : box.value;
    live.change({ [node.name]: value });
  }
</script>

<Filter form={node.form} {live}>
  <label>
    <span>{node.label}</span>
    <input
      type={node.kind}
      name={node.name}
      value={node.value}
      min={node.min}
      max={node.max}
      step={node.step}
      onchange={({ currentTarget }) => changed(currentTarget)}
    />
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
  input {
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0 0.5rem;
    height: 2.5rem;
  }
</style>
