<script lang="ts">
  import type { EditionComparison } from '@pallmist/api';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import { findingGroups } from '../publish/finding-groups.ts';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';
  import Failure from '../controls/Failure.svelte';

  const { app, last }: { app: string; last: number } = $props();
  let compared: EditionComparison | undefined = $state.raw();
  let said: string | undefined = $state();
  const numbers = $derived(Array.from({ length: last }, (_, index) => String(index + 1)));
  // Which two is in the console's own address, so that the comparison can be shared.
  const from = $derived(place.number('from') ?? Math.max(1, last - 1));
  const to = $derived(place.number('to') ?? last);

  $effect(() => void compare(from, to));
  async function compare(earlier: number, later: number) {
    said = undefined;
    try {
      compared = await client.call('compareEditions', { app, number: String(earlier), later: String(later) });
    } catch (error) {
      compared = undefined;
      said = explain(error);
    }
  }
  const groups = $derived(
    findingGroups
      .map(({ title, fate, group }) => ({
        title,
        told:
          fate === undefined
            ? (compared?.others ?? []).filter((one) => one.group === group).map(({ words }) => ({ words, witness: undefined }))
            : (compared?.findings ?? []).filter((one) => one.fate === fate),
      }))
      .filter(({ told }) => told.length > 0),
  );
</script>

<div class="pair">
  <ChoiceBox label="Addresses of edition" value={String(from)} options={numbers} onset={(value) => place.change({ from: Number(value) })} />
  <ChoiceBox label="as edition reads them" value={String(to)} options={numbers} onset={(value) => place.change({ to: Number(value) })} />
</div>
<Failure text={said} />
<div aria-live="polite">
  {#if compared && groups.length === 0}<p>Every address means the same, and looks the same.</p>{/if}
  {#each groups as { title, told } (title)}
    <h3>{title}</h3>
    <ul>
      {#each told as { words, witness } (words)}<li>
          {words}
          {#if witness}<code>{witness}</code>{/if}
        </li>{/each}
    </ul>
  {/each}
</div>

<style>
  .pair {
    display: grid;
    grid-template-columns: repeat(2, minmax(8rem, 14rem));
    gap: 0.6rem;
  }
  h3 {
    font: 600 0.9375rem var(--plain);
    margin: 0.9rem 0 0.3rem;
  }
  ul {
    margin: 0;
    padding-inline-start: 1.2rem;
    font-size: 0.875rem;
  }
  p {
    margin: 0.4rem 0;
  }
  code {
    font-family: var(--code);
    color: var(--quiet);
    overflow-wrap: anywhere;
  }
</style>
