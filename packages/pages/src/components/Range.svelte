<script lang="ts">
  import type { RangeNode } from '@pallmist/app/view';
  import { boxAttributes, boxValue } from '../box-value.ts';
  import { TypedTexts } from '../typed-texts.svelte.ts';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Group from './Group.svelte';
  import Labelled from './Labelled.svelte';

  const { node, live }: { node: RangeNode; live: LivePage } = $props();
  const typed = new TypedTexts();
  const boxes: Record<'from' | 'to', HTMLInputElement | undefined> = { from: undefined, to: undefined };

  function changed() {
    const { from: first, to: last } = boxes;
    if (!live.hydrated || !first || !last) return;
    const from = boxValue(first);
    const to = boxValue(last);
    const reversed = from !== undefined && to !== undefined && from > to;
    last.setCustomValidity(reversed ? live.shown.say('This is before the beginning.') : '');
    if (!first.reportValidity() || !last.reportValidity()) return;
    const range = { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
    live.change({ [node.name]: from === undefined && to === undefined ? undefined : range });
    typed.clear();
  }
</script>

<Filter form={node.form} {live} {typed}>
  <Group legend={node.label}>
    {#each ['from', 'to'] as const as end (end)}
      <Labelled label={live.shown.say(end)}>
        <input
          bind:this={boxes[end]}
          {...boxAttributes(node)}
          name={node.name}
          data-part={end}
          value={typed.text(node.name, node[end], end)}
          onchange={changed}
        />
      </Labelled>
    {/each}
  </Group>
</Filter>
