<script lang="ts">
  import type { ParameterBox, Say } from '@pallmist/app/view';
  import BoxField from './BoxField.svelte';
  import type { TypedTexts } from '../typed-texts.svelte.ts';
  import Group from './Group.svelte';

  const { box, id, say, typed }: { box: ParameterBox; id: string; say: Say; typed: TypedTexts } = $props();
</script>

{#if box.of === 'one'}
  <BoxField {box} {typed} {say} {id} asking />
{:else if box.of === 'several'}
  <Group legend={box.label}>
    {#each box.options as option (option.value)}
      <label class="tick"
        ><input
          type="checkbox"
          name={box.name}
          data-part={option.value}
          value={option.value}
          checked={typed.ticked(box.name, option.chosen, option.value)}
        />
        {option.text}</label
      >
    {/each}
  </Group>
{:else}
  <Group legend={box.label}>
    {#each [{ part: 'from', words: say('from'), value: box.from }, { part: 'to', words: say('to'), value: box.to }] as end (end.part)}
      <label
        >{end.words}
        <input
          name={box.name}
          type={box.limits.kind}
          data-part={end.part}
          value={typed.text(box.name, end.value, end.part)}
          min={box.limits.min}
          max={box.limits.max}
          step={box.limits.step}
        /></label
      >
    {/each}
  </Group>
{/if}

<style>
  .tick {
    display: inline-flex;
    align-items: center;
    gap: 0.4rem;
    min-height: 24px;
    margin-inline-end: 0.8rem;
  }
</style>
