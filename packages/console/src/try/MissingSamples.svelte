<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { missingSamples, type MissingSample } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft, page }: { draft: Draft; page: string } = $props();
  const missing = $derived(draft.compiled ? missingSamples(draft.compiled, page) : []);

  /** A value that would do: of the first record where the parameter names one. */
  async function proposed({ value, collection = '', by }: MissingSample): Promise<unknown> {
    const field = by ?? draft.definition?.collections?.[collection]?.keyField;
    if (field === undefined) return value;
    const found = await client.call('findRecords', { app: draft.app, collection }, { size: 1 }).catch(() => undefined);
    return found?.records[0]?.[field];
  }
  function take(name: string, value: unknown) {
    draft.set(toPointer(['pages', page, 'parameters', name, 'sample']), value, `Took “${String(value)}” as the sample of “${name}”`);
  }
</script>

<div class="note" role="group" aria-label="Samples that are missing">
  <p>The page needs a value for {missing.length === 1 ? 'a parameter' : `${missing.length} parameters`} before it can be shown.</p>
  {#each missing as sample (sample.name)}
    <p>
      <span class="name">{sample.label}</span>
      {#await proposed(sample) then value}
        {#if value !== undefined && me.mayChange}
          <Button small onclick={() => take(sample.name, value)}>Use {String(value)}</Button>
        {:else if sample.collection !== undefined}
          <span>The collection “{sample.collection}” has no records yet.</span>
        {/if}
      {/await}
      <Button small look="quiet" aria-label="Choose a sample for {sample.label}" onclick={() => place.change({ parameter: sample.name })}
        >Choose a sample</Button
      >
    </p>
  {/each}
</div>

<style>
  .note {
    padding: 0.3rem 0.6rem;
    font-size: 0.875rem;
  }
  p {
    margin: 0.2rem 0;
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    flex-wrap: wrap;
  }
  .name {
    font-weight: 600;
  }
</style>
