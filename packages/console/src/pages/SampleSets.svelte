<script lang="ts">
  import { toPointer, writePlainText } from '@pallmist/app/address';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft, page }: { draft: Draft; page: string } = $props();
  const at = $derived(toPointer(['pages', page, 'sampleSets']));
  const sets = $derived(Object.entries(draft.definition?.pages[page]?.sampleSets ?? {}));
  const parameters = $derived(draft.compiled?.pages.get(page)?.parameters ?? []);
  const shown = $derived(place.text('sample'));

  function add(name: string) {
    const samples = Object.fromEntries(
      parameters.flatMap(({ name: parameter, declaration }) => (declaration.sample === undefined ? [] : [[parameter, declaration.sample]])),
    );
    const taken = draft.set(`${at}${toPointer([name])}`, name === 'nothing given' ? {} : samples, `Added the sample set “${name}”`);
    if (taken) place.change({ sample: name });
    return taken;
  }
  const isFree = (name: string) => !sets.some(([present]) => present === name);
  function textOf(parameter: string, value: unknown): string {
    if (value === undefined) return '';
    if (typeof value === 'string') return value;
    const plain = parameters.find((one) => one.name === parameter)?.plain;
    const written = plain === undefined ? undefined : writePlainText(plain, value as never);
    return typeof written === 'string' ? written : JSON.stringify(value);
  }
  const common = ['typical', 'nothing given', 'wrong value', 'another’s record'];
</script>

<section>
  <h3>Sample sets</h3>
  <p>Values for the preview, written as in an address, so you can try wrong ones too.</p>
  <ul>
    {#each sets as [set, values] (set)}
      <li>
        <details open={shown === set}>
          <summary>
            {set}
            <Button
              small
              look="quiet"
              aria-pressed={shown === set}
              onclick={() => place.change({ sample: shown === set ? undefined : set })}>{shown === set ? 'Shown' : 'Show'}</Button
            >
          </summary>
          {#each parameters as { name: parameter } (parameter)}
            <label
              >{parameter}
              <input
                value={textOf(parameter, values[parameter])}
                placeholder="absent"
                disabled={!me.mayChange}
                onchange={({ currentTarget }) =>
                  draft.set(
                    toPointer(['pages', page, 'sampleSets', set, parameter]),
                    currentTarget.value === '' ? undefined : currentTarget.value,
                    `Changed the sample set “${set}”`,
                  )}
              /></label
            >
          {/each}
          <Button small look="danger" onclick={() => draft.set(`${at}${toPointer([set])}`, undefined, `Removed the sample set “${set}”`)}
            >Remove this set</Button
          >
        </details>
      </li>
    {/each}
  </ul>
  {#if me.mayChange && parameters.length > 0}
    <AddForm label="Name of the new sample set" placeholder="typical" button="Add a set" offered={common} accepts={isFree} onadd={add} />
  {/if}
</section>

<style>
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.2rem;
  }
  p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  ul {
    list-style: none;
    margin: 0.3rem 0;
    padding: 0;
  }
  summary {
    cursor: pointer;
    font-size: 0.875rem;
  }
  label {
    display: grid;
    grid-template-columns: 7rem 1fr;
    gap: 0.4rem;
    align-items: center;
    font: 0.8125rem var(--code);
    margin-block: 0.2rem;
  }
  input {
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.1rem 0.4rem;
  }
</style>
