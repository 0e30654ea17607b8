<script lang="ts">
  import type { RangeNode } from '@pallmist/core/view';
  import { boxValue } from '../box-value.ts';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';

  const { node, live }: { node: RangeNode; live: LivePage } = $props();
  const boxes: Record<'from' | 'to', HTMLInputElement | undefined> = { from: undefined, to: undefined };

  function changed() {
    const { from: first, to: last } = boxes;
    if (!live.taken || !first || !last) return;
    const from = boxValue(first);
    const to = boxValue(last);
    const reversed = from !== undefined && to !== undefined && from > to;
    last.setCustomValidity(reversed ? 'This is before the beginning.' : '');
    if (!first.reportValidity() || !last.reportValidity()) return;
    const range = { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
    live.change({ [node.name]: from === undefined && to === undefined ? undefined : range });
  }
</script>

<Filter form={node.form} {live}>
  <fieldset>
    <legend>{node.label}</legend>
    {#each ['from', 'to'] as const as end (end)}
      <Labelled label={end}>
        <input
          bind:this={boxes[end]}
          type={node.kind}
          name={node.name}
          value={node[end]}
          min={node.min}
          max={node.max}
          step={node.step}
          onchange={changed}
        />
      </Labelled>
    {/each}
  </fieldset>
</Filter>

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem;
    border: 0;
    margin: 0;
    padding: 0;
    min-width: 0;
  }
  legend {
    padding: 0;
    font-size: 0.85rem;
    color: var(--quiet);
  }
</style>
