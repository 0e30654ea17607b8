<script lang="ts">
  import type { ParameterBox, Say } from '@pallmist/app/view';
  import BoxField from './BoxField.svelte';
  import Group from './Group.svelte';

  const { box, id, say }: { box: ParameterBox; id: string; say: Say } = $props();
</script>

{#if box.of === 'one'}
  <BoxField {box} {say} {id} asking />
{:else if box.of === 'several'}
  <Group legend={box.label}>
    {#each box.options as option (option.value)}
      <label class="tick"><input type="checkbox" name={box.name} value={option.value} checked={option.chosen} /> {option.text}</label>
    {/each}
  </Group>
{:else}
  <Group legend={box.label}>
    {#each [{ words: say('from'), value: box.from }, { words: say('to'), value: box.to }] as end (end.words)}
      <label
        >{end.words}
        <input
          name={box.name}
          type={box.limits.kind}
          value={end.value}
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
