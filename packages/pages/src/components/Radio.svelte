<script lang="ts">
  import type { RadioNode } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Pills from './Pills.svelte';

  const { node, live }: { node: RadioNode; live: LivePage } = $props();
</script>

<Filter form={node.form} {live}>
  <Pills legend={node.label}>
    {#each node.options as option (option.value)}
      <label>
        <input
          type="radio"
          name={node.name}
          value={option.value}
          checked={option.value === node.value}
          onchange={() => live.taken && live.change({ [node.name]: option.value === '' ? undefined : option.value })}
        />
        {option.text}
      </label>
    {/each}
  </Pills>
</Filter>
