<script lang="ts">
  import { valueAt, writtenComponent } from '@pallmist/app/editing';
  import ComponentProperties from '../content/ComponentProperties.svelte';
  import RowsProperties from '../content/RowsProperties.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import ParameterProperties from '../parameters/ParameterProperties.svelte';
  import { pointerOf } from '../problems/place-link.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import PageProperties from './PageProperties.svelte';

  const { draft, page, frame }: { draft: Draft; page: string; frame: PageInFrame } = $props();
  const definition = $derived(draft.definition);
  const parameter = $derived(place.text('parameter'));
  const rows = $derived(place.text('rows'));
  const part = $derived(place.text('part'));
  // What a block brings is not in the file at its place: the block is shown.
  const pointer = $derived(part === undefined ? undefined : writtenComponent(draft.data, pointerOf(page, part)));
  const component = $derived(pointer === undefined || pointer === '' ? undefined : valueAt(draft.data, pointer));
</script>

{#if definition}
  {#if parameter !== undefined && definition.pages[page]?.parameters?.[parameter]}
    {#key `${page} ${parameter}`}<ParameterProperties {draft} {page} name={parameter} />{/key}
  {:else if rows !== undefined && definition.pages[page]?.rows?.[rows]}
    {#key `${page} ${rows}`}<RowsProperties {draft} {page} name={rows} {frame} />{/key}
  {:else if pointer !== undefined && component !== undefined}
    {#key pointer}<ComponentProperties {draft} {page} {pointer} {frame} />{/key}
  {:else}
    {#key page}<PageProperties {draft} {page} />{/key}
  {/if}
{/if}
