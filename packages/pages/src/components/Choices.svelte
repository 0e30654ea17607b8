<script lang="ts">
  import type { ChoicesNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';

  const { node, live }: { node: ChoicesNode; live: LivePage } = $props();

  function changed(value: string, chosen: boolean) {
    if (!live.taken) return;
    const values = node.options.filter((option) => (option.value === value ? chosen : option.chosen)).map((option) => option.value);
    live.change({ [node.name]: values.length === 0 && !node.hasDefault ? undefined : values });
  }
</script>

<Filter form={node.form} {live}>
  <fieldset>
    <legend>{node.label}</legend>
    {#if node.hasDefault}<input type="hidden" name={node.name} value="" />{/if}
    {#each node.options as option (option.value)}
      <label>
        <input
          type="checkbox"
          name={node.name}
          value={option.value}
          checked={option.chosen}
          onchange={({ currentTarget }) => changed(option.value, currentTarget.checked)}
        />
        {option.text}
      </label>
    {/each}
  </fieldset>
</Filter>

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.4rem;
    border: 0;
    margin: 0;
    padding: 0;
  }
  legend {
    font-size: 0.85rem;
    color: var(--quiet);
    padding: 0;
    margin-block-end: 0.15rem;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 0.35rem;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: 1rem;
    padding: 0.15rem 0.7rem;
    cursor: pointer;
  }
  label:has(:checked) {
    background: var(--leaf-soft);
    border-color: var(--leaf);
  }
  input {
    accent-color: var(--leaf);
  }
</style>
