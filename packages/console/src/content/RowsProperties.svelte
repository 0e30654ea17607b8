<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { usesOfRows } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlaceList from '../problems/PlaceList.svelte';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ConditionEditor from './ConditionEditor.svelte';
  import FigureList from './FigureList.svelte';
  import ValueBox from './ValueBox.svelte';
  import WhereList from './WhereList.svelte';

  const { draft, page, name, frame }: { draft: Draft; page: string; name: string; frame: PageInFrame } = $props();
  const definition = $derived(draft.definition);
  const read = $derived(definition?.pages[page]?.rows?.[name]);
  const at = $derived(toPointer(['pages', page, 'rows', name]));
  const uses = $derived(definition?.pages[page] ? usesOfRows(definition.pages[page], page, name) : []);
  const set = (key: string, value: unknown) => draft.set(`${at}/${key}`, value, `Changed “${key}” of the rows “${name}”`);
  const whole = (text: string) => (/^\d+$/.test(text) ? Number(text) : text);
</script>

{#if read && definition}
  <h2>Rows “{name}” <GuideLink to="app-file#reads" about="reads" /></h2>
  <div class="fields">
    <ChoiceBox
      label="Collection"
      file="from"
      value={read.from}
      options={Object.keys(definition.collections ?? {})}
      problems={draft.problemsAt(`${at}/from`)}
      disabled={!me.mayChange}
      onset={(value) => value !== undefined && set('from', value)}
    />
    <WhereList {draft} {page} {frame} {name} {read} {at} list="where" label="Only records of which all of this is true" />
    <WhereList {draft} {page} {frame} {name} {read} {at} list="whereAny" label="And at least one of this" />
    <ValueBox
      {draft}
      {page}
      {frame}
      label="Sorted by"
      file="sort"
      into="value"
      help="A sort parameter, or fields: name,-planted"
      problems={draft.problemsAt(`${at}/sort`)}
      value={String(read.sort ?? '')}
      onset={(value) => set('sort', value === '' ? undefined : value)}
    />
    <ValueBox
      {draft}
      {page}
      {frame}
      label="Page of the list"
      file="page"
      into="value"
      wanted="int"
      help="A parameter with the page’s number, from 1."
      problems={draft.problemsAt(`${at}/page`)}
      value={String(read.page ?? '')}
      onset={(value) => set('page', value === '' ? undefined : value)}
    />
    <ValueBox
      {draft}
      {page}
      {frame}
      label="Records on a page"
      file="size"
      into="value"
      wanted="int"
      help="At most 500; 25 when left out."
      problems={draft.problemsAt(`${at}/size`)}
      value={String(read.size ?? '')}
      onset={(value) => set('size', value === '' ? undefined : whole(value))}
    />
    <FigureList {draft} {name} {read} {at} />
    <ConditionEditor
      {draft}
      {page}
      {frame}
      label="Read only while"
      pointer="{at}/when"
      value={read.when}
      onset={(when) => set('when', when)}
    />
  </div>
  <h3>Used</h3>
  <PlaceList {draft} places={uses} none="Nothing shows these rows yet." />
  {#if me.mayChange}
    <p>
      <Button
        small
        look="danger"
        onclick={() => {
          if (draft.set(at, undefined, `Removed the rows “${name}”`)) place.change({ rows: undefined });
        }}>Remove the rows</Button
      >
    </p>
  {/if}
{/if}

<style>
  h2 {
    font: 600 1.05rem var(--text);
    margin-block-end: 0.6rem;
  }
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.2rem;
  }
  .fields {
    display: grid;
    gap: 0.7rem;
  }
</style>
