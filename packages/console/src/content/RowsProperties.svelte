<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { usesOfRows } from '@pallmist/app/editing';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import PlaceList from '../problems/PlaceList.svelte';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ConditionEditor from './ConditionEditor.svelte';
  import ValueBox from './ValueBox.svelte';

  const { draft, page, name, frame }: { draft: Draft; page: string; name: string; frame: PageInFrame } = $props();
  const definition = $derived(draft.definition);
  const read = $derived(definition?.pages[page]?.rows?.[name]);
  const at = $derived(toPointer(['pages', page, 'rows', name]));
  const fields = $derived(definition?.collections?.[read?.from ?? '']?.fields ?? {});
  const uses = $derived(definition?.pages[page] ? usesOfRows(definition.pages[page], page, name) : []);
  const tests = {
    equals: 'is',
    contains: 'contains',
    startsWith: 'begins with',
    oneOf: 'is one of',
    within: 'is within',
    before: 'is before',
    after: 'is after',
    lessThan: 'is less than',
    moreThan: 'is more than',
    atMost: 'is at most',
    atLeast: 'is at least',
    empty: 'is empty',
  } as const;
  type Test = keyof typeof tests;
  type Where = NonNullable<NonNullable<typeof read>['where']>[number];
  const testOf = (where: Where): Test => (Object.keys(tests) as Test[]).find((test) => where[test] !== undefined) ?? 'equals';

  function setWhere(index: number, where: Where) {
    draft.edit([{ op: 'replace', path: `${at}/where/${index}`, value: where }], `Changed a condition of “${name}”`, `${at}/where/${index}`);
  }
  function add() {
    const [field = ''] = Object.keys(fields);
    const where: Where = { field, equals: '' };
    if (read?.where === undefined) draft.set(`${at}/where`, [where], `Added a condition to “${name}”`);
    else draft.edit([{ op: 'add', path: `${at}/where/${read.where.length}`, value: where }], `Added a condition to “${name}”`);
  }
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
    <Group label="Only records of which" file="where">
      {#each read.where ?? [] as where, index (index)}
        {@const test = testOf(where)}
        <div class="where">
          <ChoiceBox
            label="Field"
            value={where.field}
            options={Object.entries(fields).map(([field, { label }]) => ({ value: field, label: label ?? field }))}
            problems={draft.problemsAt(`${at}/where/${index}/field`)}
            disabled={!me.mayChange}
            onset={(field) => field !== undefined && setWhere(index, { ...where, field })}
          />
          <ChoiceBox
            label="Test"
            value={test}
            options={Object.entries(tests).map(([value, label]) => ({ value, label }))}
            disabled={!me.mayChange}
            onset={(next) => {
              const { [test]: given, ...rest } = where;
              if (next !== undefined)
                setWhere(index, { ...rest, [next]: next === 'empty' ? true : typeof given === 'boolean' ? '' : given } as Where);
            }}
          />
          {#if test !== 'empty'}
            <ValueBox
              {draft}
              {page}
              {frame}
              label="Value"
              into="value"
              problems={draft.problemsAt(`${at}/where/${index}/${test}`)}
              value={String(where[test] ?? '')}
              onset={(value) => setWhere(index, { ...where, [test]: value })}
            />
            <ChoiceBox
              label="While the value is absent"
              value={where.absent}
              none="every record fits"
              options={[{ value: 'nothing', label: 'nothing is read' }]}
              disabled={!me.mayChange}
              onset={(absent) => {
                const { absent: _, ...rest } = where;
                setWhere(index, absent === undefined ? rest : ({ ...rest, absent } as Where));
              }}
            />
          {/if}
          {#if me.mayChange}
            <Button
              small
              look="quiet"
              onclick={() =>
                (read.where ?? []).length === 1
                  ? set('where', undefined)
                  : draft.edit([{ op: 'remove', path: `${at}/where/${index}` }], `Removed a condition of “${name}”`)}>Remove</Button
            >
          {/if}
        </div>
      {/each}
      {#if me.mayChange}<Button small onclick={add}>Add a condition</Button>{/if}
    </Group>
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
  .where {
    width: 100%;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.35rem;
    border-block-end: 1px solid var(--line);
    padding-block-end: 0.5rem;
    align-items: end;
    justify-items: stretch;
  }
</style>
