<script lang="ts">
  import { tick } from 'svelte';
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import ToggleGroup from './ToggleGroup.svelte';

  const { node, live }: { node: NodeOf<'checkboxes'>; live: LivePage } = $props();

  const count = $derived(node.options.filter(({ chosen }) => chosen).length);
  /** Without JavaScript the service says what is too much: a box that is disabled could not be exchanged for another. */
  const isFull = $derived(live.hydrated && node.limit !== undefined && count >= node.limit.most);

  async function changed(value: string, box: HTMLInputElement) {
    if (!live.hydrated) return;
    const values = node.options.filter((option) => (option.value === value ? box.checked : option.chosen)).map((option) => option.value);
    live.change({ [node.name]: values.length === 0 && !node.hasDefault ? undefined : values });
    // A change that the parameter refuses is not made, and the box shows what holds.
    await tick();
    box.checked = node.options.some((option) => option.value === value && option.chosen);
  }
</script>

<Filter form={node.form} {live}>
  <ToggleGroup legend={node.label}>
    {#if node.hasDefault}<input type="hidden" name={node.name} value="" />{/if}
    {#each node.options as option (option.value)}
      <label>
        <input
          type="checkbox"
          name={node.name}
          value={option.value}
          checked={option.chosen}
          disabled={isFull && !option.chosen}
          onchange={({ currentTarget }) => void changed(option.value, currentTarget)}
        />
        {option.text}
      </label>
    {/each}
    {#if node.limit}<small dir="auto">{node.limit.says}</small>{/if}
  </ToggleGroup>
</Filter>

<style>
  small {
    align-self: center;
    color: var(--quiet);
  }
</style>
