<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import {
    fieldsForFigure,
    figureWords,
    figureOf,
    freeName,
    setValue,
    type FigureDefinition,
    type ReadDefinition,
  } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import Group from '../controls/Group.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  interface Props {
    draft: Draft;
    /** Name of the rows. */
    name: string;
    read: ReadDefinition;
    /** JSON Pointer of the rows. */
    at: string;
  }
  const { draft, name, read, at }: Props = $props();
  const figures = $derived(Object.entries(read.figures ?? {}));
  const kinds = Object.entries(figureWords).map(([value, label]) => ({ value, label }));
  const fieldsFor = (of: keyof FigureDefinition) => (draft.definition ? fieldsForFigure(draft.definition, read.from, of) : []);
  const pointer = (figure: string) => `${at}${toPointer(['figures', figure])}`;

  function change(figure: string, of: keyof FigureDefinition, field: string): void {
    const fitting = fieldsFor(of);
    const value = { [of]: fitting.includes(field) ? field : (fitting[0] ?? field) };
    draft.edit([{ op: 'replace', path: pointer(figure), value }], `Changed the figure “${figure}” of “${name}”`);
  }
  function rename(figure: string, to: string): void {
    if (to === figure || to === '' || read.figures?.[to] !== undefined) return;
    draft.edit([{ op: 'move', from: pointer(figure), path: pointer(to) }], `Renamed the figure “${figure}” to “${to}”`);
  }
  function add(): void {
    const of = (Object.keys(figureWords) as (keyof FigureDefinition)[]).find((one) => fieldsFor(one).length > 0) ?? 'distinct';
    const figure = freeName('figure', Object.keys(read.figures ?? {}));
    draft.edit(setValue(draft.data, pointer(figure), { [of]: fieldsFor(of)[0] ?? '' }), `Added a figure to “${name}”`);
  }
  function remove(figure: string): void {
    const place = figures.length === 1 ? `${at}/figures` : pointer(figure);
    draft.edit([{ op: 'remove', path: place }], `Removed the figure “${figure}” of “${name}”`);
  }
</script>

<Group label="Figures of the whole list" file="figures" help={`A text shows one by its name: {figures.${name}.NAME}`}>
  {#each figures as [figure, declared] (figure)}
    {@const { of, field } = figureOf(declared)}
    <div class="figure">
      <TextBox label="Name" code when="done" value={figure} disabled={!me.mayChange} onset={(to) => rename(figure, to.trim())} />
      <ChoiceBox
        label="Figure"
        value={of}
        options={kinds}
        disabled={!me.mayChange}
        onset={(next) => next !== undefined && change(figure, next as keyof FigureDefinition, field)}
      />
      <ChoiceBox
        label="Of the field"
        value={field}
        options={fieldsFor(of)}
        problems={draft.problemsAt(pointer(figure))}
        disabled={!me.mayChange}
        onset={(next) => next !== undefined && change(figure, of, next)}
      />
      {#if me.mayChange}<Button small look="quiet" aria-label="Remove {figure}" onclick={() => remove(figure)}>Remove</Button>{/if}
    </div>
  {/each}
  {#if me.mayChange}<Button small onclick={add}>Add a figure</Button>{/if}
</Group>

<style>
  .figure {
    width: 100%;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.35rem;
    align-items: end;
    border-block-end: 1px solid var(--line);
    padding-block-end: 0.5rem;
  }
</style>
