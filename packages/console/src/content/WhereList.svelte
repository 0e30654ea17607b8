<script lang="ts">
  import { fieldsToChoose, setValue, type ReadDefinition } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import Group from '../controls/Group.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ValueBox from './ValueBox.svelte';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    /** Name of the rows. */
    name: string;
    read: ReadDefinition;
    /** JSON Pointer of the rows. */
    at: string;
    /** The conditions of which all have to hold, or those of which one has to. */
    list: 'where' | 'whereAny';
    label: string;
  }
  const { draft, page, frame, name, read, at, list, label }: Props = $props();
  const fields = $derived(draft.definition ? fieldsToChoose(draft.definition, read.from) : []);
  const conditions = $derived(read[list] ?? []);
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
  type Where = NonNullable<ReadDefinition['where']>[number];
  const testOf = (where: Where): Test => (Object.keys(tests) as Test[]).find((test) => where[test] !== undefined) ?? 'equals';

  function change(index: number, where: Where): void {
    const pointer = `${at}/${list}/${index}`;
    draft.edit([{ op: 'replace', path: pointer, value: where }], `Changed a condition of “${name}”`, pointer);
  }
  function add(): void {
    const where: Where = { field: fields[0]?.path ?? '', equals: '' };
    draft.edit(setValue(draft.data, `${at}/${list}`, [...conditions, where]), `Added a condition to “${name}”`);
  }
  function remove(index: number): void {
    const left = conditions.filter((_, other) => other !== index);
    draft.edit(setValue(draft.data, `${at}/${list}`, left.length === 0 ? undefined : left), `Removed a condition of “${name}”`);
  }
  const without = (where: Where, key: keyof Where) => Object.fromEntries(Object.entries(where).filter(([one]) => one !== key)) as Where;
</script>

<Group {label} file={list}>
  {#each conditions as where, index (index)}
    {@const test = testOf(where)}
    <div class="where">
      <ChoiceBox
        label="Field"
        value={where.field}
        options={fields.map((field) => ({ value: field.path, label: field.label }))}
        problems={draft.problemsAt(`${at}/${list}/${index}/field`)}
        disabled={!me.mayChange}
        onset={(field) => field !== undefined && change(index, { ...where, field })}
      />
      <ChoiceBox
        label="Test"
        value={test}
        options={Object.entries(tests).map(([value, words]) => ({ value, label: words }))}
        disabled={!me.mayChange}
        onset={(next) => {
          const given = where[test];
          if (next !== undefined)
            change(index, { ...without(where, test), [next]: next === 'empty' ? true : typeof given === 'boolean' ? '' : given } as Where);
        }}
      />
      {#if test !== 'empty'}
        <ValueBox
          {draft}
          {page}
          {frame}
          label="Value"
          into="value"
          problems={draft.problemsAt(`${at}/${list}/${index}/${test}`)}
          value={String(where[test] ?? '')}
          onset={(value) => change(index, { ...where, [test]: value })}
        />
        <ChoiceBox
          label="While the value is absent"
          value={where.absent}
          none="every record fits"
          options={[{ value: 'nothing', label: 'nothing is read' }]}
          disabled={!me.mayChange}
          onset={(absent) => change(index, absent === undefined ? without(where, 'absent') : ({ ...where, absent } as Where))}
        />
      {/if}
      <CheckBox
        label="Reverse this condition"
        checked={where.not === true}
        disabled={!me.mayChange}
        onset={(checked) => change(index, checked ? { ...where, not: true } : without(where, 'not'))}
      />
      {#if me.mayChange}<Button small look="quiet" onclick={() => remove(index)}>Remove</Button>{/if}
    </div>
  {/each}
  {#if me.mayChange}<Button small onclick={add}>Add a condition</Button>{/if}
</Group>

<style>
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
