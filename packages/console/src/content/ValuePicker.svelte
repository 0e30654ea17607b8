<script lang="ts">
  import {
    availableValues,
    valuesNearby,
    type AvailableValue,
    type ValuePlace,
    type ValueSource,
    type WantedType,
    presentValue,
    type PresentValues,
  } from '@pallmist/app/editing';
  import { Choosing } from '../controls/choosing.svelte.ts';
  import FindBox from '../controls/FindBox.svelte';
  import Button from '../controls/Button.svelte';
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';

  interface Props {
    draft: Draft;
    place: ValuePlace;
    wanted: WantedType;
    /** What the values are on the page that is shown. */
    values: PresentValues;
    title: string;
    onpick: (picked: Pick<AvailableValue, 'expression' | 'optional'>) => void;
    /** The builder wants to write an expression. */
    onbrace?: (() => void) | undefined;
    onclose: () => void;
  }
  const { draft, place, wanted, values, title, onpick, onbrace, onclose }: Props = $props();
  const sources: Record<ValueSource, string> = {
    row: 'The row',
    saved: 'What was saved',
    parameters: 'Parameters',
    records: 'Records',
    rows: 'Lists',
    person: 'The person',
    visit: 'The visit',
    words: 'Words',
    app: 'App and day',
  };
  let search = $state('');
  let source: ValueSource | undefined = $state();
  const all = $derived(draft.definition ? availableValues(draft.definition, place, wanted) : []);
  const present = $derived([...new Set(all.map((value) => value.source))]);
  const found = $derived.by(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return all.filter(
      (value) =>
        (source === undefined || value.source === source) &&
        words.every((word) => `${value.label} ${value.expression} ${sources[value.source]}`.toLowerCase().includes(word)),
    );
  });
  const fitting = $derived(found.filter(({ misfit }) => misfit === undefined));
  const misfits = $derived(found.filter(({ misfit }) => misfit !== undefined));
  const nearby = $derived(
    draft.definition
      ? valuesNearby(draft.definition, place).filter(({ label }) => search === '' || label.toLowerCase().includes(search.toLowerCase()))
      : [],
  );

  const choosing = new Choosing(
    () => fitting,
    (value) => onpick(value),
  );
</script>

<Modal {title} size="wide" {onclose}>
  <FindBox label="Find a value" placeholder="Find: name, page, person" list="values" {choosing} bind:text={search} />
  <div class="columns">
    <div class="sources" role="group" aria-label="Sources">
      <Button small look="quiet" aria-pressed={source === undefined} onclick={() => (source = undefined)}>All</Button>
      {#each present as name (name)}
        <Button small look="quiet" aria-pressed={source === name} onclick={() => (source = name)}>{sources[name]}</Button>
      {/each}
    </div>
    <div>
      <ul id="values" role="listbox" aria-label="Values that fit">
        {#each fitting as value, index (value.expression)}
          <!-- svelte-ignore a11y_click_events_have_key_events -- the box above has the focus and handles the keys -->
          <li id="values-{index}" role="option" aria-selected={index === choosing.index} onclick={() => onpick(value)}>
            <span class="label">{value.label}</span>
            <code>{value.expression}</code>
            <span class="type">{value.type}{value.optional ? ', may be absent' : ''}</span>
            <span class="now">{presentValue(values, value.expression, place.row)}</span>
          </li>
        {/each}
      </ul>
      {#if fitting.length === 0}<p role="status">Nothing here fits.</p>{/if}
      {#if misfits.length > 0}
        <h3>These do not fit</h3>
        <ul>
          {#each misfits as value (value.expression)}
            <li class="misfit">
              <span class="label">{value.label}</span> <code>{value.expression}</code> <span class="reason">{value.misfit}</span>
            </li>
          {/each}
        </ul>
      {/if}
      {#if nearby.length > 0}
        <h3>Not on this page yet</h3>
        <ul>
          {#each nearby as value (value.expression)}
            <li class="misfit">
              <span class="label">{value.label}</span>
              <span class="reason">{value.reason}</span>
              <Button
                small
                onclick={() => {
                  if (draft.edit(value.patch, value.step)) onpick({ expression: value.expression, optional: true });
                }}>{value.step}</Button
              >
            </li>
          {/each}
        </ul>
      {/if}
      {#if onbrace}<p><Button small look="quiet" onclick={onbrace}>Write an expression</Button></p>{/if}
    </div>
  </div>
</Modal>

<style>
  .columns {
    display: grid;
    grid-template-columns: 9rem minmax(0, 1fr);
    gap: 0.8rem;
  }
  .sources {
    display: grid;
    gap: 0.25rem;
    align-content: start;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1.4fr) minmax(0, 1.2fr) 6.5rem minmax(0, 1fr);
    gap: 0.5rem;
    align-items: baseline;
    padding: 0.18rem 0.4rem;
    border-radius: var(--round);
    font-size: 0.875rem;
  }
  [role='option'] {
    cursor: pointer;
  }
  [role='option']:hover {
    background: var(--sunk);
  }
  [aria-selected='true'] {
    background: var(--leaf-soft);
  }
  code {
    color: var(--quiet);
    font-size: 0.75rem;
    overflow-wrap: anywhere;
  }
  .type {
    color: var(--quiet);
    font-size: 0.75rem;
  }
  .now {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    text-align: end;
  }
  .misfit {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
    color: var(--quiet);
  }
  .reason {
    font-size: 0.8125rem;
  }
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.7rem 0 0.2rem;
  }
  p {
    margin: 0.5rem 0;
  }
  @media (max-width: 40rem) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
    .sources {
      display: flex;
      flex-wrap: wrap;
    }
    li {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }
  }
</style>
