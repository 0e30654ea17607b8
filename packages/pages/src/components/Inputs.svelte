<script lang="ts">
  import type { BoxesNode } from '@pallmist/app/view';
  import { boxAttributes, boxValue } from '../box-value.ts';
  import { TypedTexts } from '../typed-texts.svelte.ts';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Group from './Group.svelte';

  const { node, live }: { node: BoxesNode; live: LivePage } = $props();
  const typed = new TypedTexts();
  const boxes = $derived(node.grows ? [...node.values, ''] : node.values);

  function changed({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
    const all = [...(currentTarget.closest('fieldset')?.querySelectorAll('input') ?? [])];
    if (!live.hydrated || all.some((box) => !box.reportValidity())) return;
    const values = all.map(boxValue).filter((value) => value !== undefined);
    live.change({ [node.name]: values.length === 0 ? undefined : values });
    typed.clear();
  }
</script>

<Filter form={node.form} {live} {typed}>
  <Group legend={node.label}>
    {#each boxes as value, index (index)}
      <input
        {...boxAttributes(node)}
        name={node.name}
        data-part={index}
        value={typed.text(node.name, value, index)}
        aria-label="{node.label}, {index + 1}"
        onchange={changed}
      />
    {/each}
  </Group>
</Filter>

<style>
  input {
    width: 10rem;
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0.3rem 0.6rem;
    height: 2.5rem;
  }
</style>
