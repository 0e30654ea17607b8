<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import ToggleGroup from './ToggleGroup.svelte';

  const { node, live }: { node: NodeOf<'radio'>; live: LivePage } = $props();
</script>

<Filter form={node.form} {live}>
  <ToggleGroup legend={node.label}>
    {#each node.options as option (option.value)}
      <label>
        <input
          type="radio"
          name={node.name}
          value={option.value}
          checked={option.value === node.value}
          onchange={() => live.hydrated && live.enter(node.name, option.value)}
        />
        {option.text}
      </label>
    {/each}
  </ToggleGroup>
</Filter>
