<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import ToggleGroup from './ToggleGroup.svelte';

  const { node, live }: { node: NodeOf<'checkboxes'>; live: LivePage } = $props();

  function changed(value: string, chosen: boolean) {
    if (!live.hydrated) return;
    const values = node.options.filter((option) => (option.value === value ? chosen : option.chosen)).map((option) => option.value);
    live.change({ [node.name]: values.length === 0 && !node.hasDefault ? undefined : values });
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
          onchange={({ currentTarget }) => changed(option.value, currentTarget.checked)}
        />
        {option.text}
      </label>
    {/each}
  </ToggleGroup>
</Filter>
