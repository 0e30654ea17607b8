<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { inputsOf, setValue, type BlockInput, type Component } from '@pallmist/app/editing';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import DataBox from '../controls/DataBox.svelte';
  import Group from '../controls/Group.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ValueBox from './ValueBox.svelte';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    component: Component;
    pointer: string;
  }
  const { draft, page, frame, component, pointer }: Props = $props();
  const definition = $derived(draft.definition);
  const of = $derived(String(component['of'] ?? ''));
  const inputs = $derived(definition ? inputsOf(definition, component) : []);
  const at = (input: string) => pointer + toPointer(['values', input]);
  const shown = ({ given }: BlockInput) => (given === undefined ? '' : String(given));
  const isPlain = (value: unknown) => value === undefined || typeof value !== 'object';

  function give(input: string, value: unknown): void {
    draft.edit(
      setValue(draft.data, at(input), value === '' ? undefined : value),
      `Changed what the block “${of}” gets as “${input}”`,
      at(input),
    );
  }
</script>

<ChoiceBox
  label="Block"
  file="of"
  value={of}
  options={Object.keys(definition?.blocks ?? {})}
  problems={draft.problemsAt(`${pointer}/of`)}
  disabled={!me.mayChange}
  onset={(value) => value !== undefined && draft.set(`${pointer}/of`, value, `Chose the block “${value}”`)}
/>
{#if inputs.length > 0}
  <Group label="What it gets" file="values">
    {#each inputs as input (input.name)}
      {@const help = input.required
        ? 'The block needs it.'
        : input.default === undefined
          ? undefined
          : `When empty: ${typeof input.default === 'object' ? JSON.stringify(input.default) : String(input.default as string)}`}
      {#if isPlain(input.given)}
        <ValueBox
          {draft}
          {page}
          {frame}
          label={input.label}
          file={input.name}
          {help}
          value={shown(input)}
          into="text"
          problems={draft.problemsAt(at(input.name))}
          onset={(text) => give(input.name, text)}
        />
      {:else}
        <DataBox
          label={input.label}
          file={input.name}
          {help}
          value={input.given}
          problems={draft.problemsAt(at(input.name))}
          onset={(value) => give(input.name, value)}
        />
      {/if}
    {/each}
  </Group>
{/if}
<p>Its contents are listed below it in “On this page”. A change there shows on every page that uses the block.</p>

<style>
  p {
    margin: 0.5rem 0 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
</style>
