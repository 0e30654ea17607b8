<script lang="ts">
  import {
    availableValues,
    conditionRows,
    conditionText,
    conditionWords,
    wordsOfTest,
    type ConditionRow,
    type ConditionTest,
  } from '@pallmist/app/editing';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import ExpressionBox from './ExpressionBox.svelte';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    label: string;
    /** JSON Pointer of the condition. */
    pointer: string;
    value: string | undefined;
    onset: (condition: string | undefined) => void;
  }
  const { draft, page, label, pointer, value, onset }: Props = $props();
  let written = $state(false);
  const rows = $derived(conditionRows(value ?? ''));
  const problems = $derived(draft.problemsAt(pointer));
  const subjects = $derived(
    draft.definition ? availableValues(draft.definition, { page }, 'any').filter(({ misfit }) => misfit === undefined) : [],
  );
  const nameOf = (subject: string) => subjects.find(({ expression }) => expression === subject)?.label ?? subject;

  /** The tests that make sense for a subject. */
  function testsFor(subject: string): ConditionTest[] {
    const found = subjects.find(({ expression }) => expression === subject);
    const presence: ConditionTest[] = found?.optional === false ? [] : ['present', 'absent'];
    switch (found?.type) {
      case 'yes or no':
        return ['true', 'false', ...presence];
      case 'whole number':
      case 'number':
        return ['==', '!=', '<', '<=', '>', '>=', ...presence];
      case 'list':
        return ['has-item'];
      default:
        return ['==', '!=', 'contains', ...presence];
    }
  }
  const needsValue = (test: ConditionTest) => !['present', 'absent', 'true', 'false'].includes(test);

  function set(next: ConditionRow[], join = rows?.join ?? 'all') {
    onset(next.length === 0 ? undefined : conditionText({ join, rows: next }));
  }
  function change(index: number, changed: Partial<ConditionRow>) {
    const next = (rows?.rows ?? []).map((row, at) => {
      if (at !== index) return row;
      const merged = { ...row, ...changed };
      const tests = testsFor(merged.subject);
      const test = tests.includes(merged.test) ? merged.test : (tests[0] ?? 'present');
      const { value: given, ...rest } = { ...merged, test };
      return needsValue(test) ? { ...rest, value: given ?? '' } : rest;
    });
    set(next);
  }
  function add() {
    const subject = subjects.find(({ source, optional }) => source === 'parameters' && optional)?.expression ?? 'person.login';
    const test = testsFor(subject).includes('present') ? 'present' : '==';
    set([...(rows?.rows ?? []), needsValue(test) ? { subject, test, value: '' } : { subject, test }]);
  }
  /** Values to choose from: the choices of a choice parameter. */
  function valuesFor(subject: string): string[] {
    const name = /^param\.(\w+)$/.exec(subject)?.[1] ?? '';
    const declared = draft.definition?.pages[page]?.parameters?.[name] ?? draft.definition?.parameters?.[name];
    if (declared?.type === 'choice') return Object.keys(draft.definition?.choices?.[declared.of ?? ''] ?? {});
    if (subject === 'person.roles') return Object.values(draft.definition?.gates ?? {}).flatMap(({ roles }) => roles ?? []);
    return [];
  }
  /** What is typed, as the subject’s type has it. */
  function typed(subject: string, text: string): string | number {
    const type = subjects.find(({ expression }) => expression === subject)?.type;
    return (type === 'number' || type === 'whole number') && text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : text;
  }
</script>

<Group {label} file="when">
  {#if rows && !written}
    {#each rows.rows as row, index (index)}
      <div class="row">
        {#if index > 0}
          <select
            aria-label="And, or"
            value={rows.join}
            disabled={!me.mayChange}
            onchange={({ currentTarget }) => set(rows.rows, currentTarget.value as 'all' | 'any')}
            ><option value="all">and</option><option value="any">or</option></select
          >
        {/if}
        <select
          aria-label="What the condition looks at"
          value={row.subject}
          disabled={!me.mayChange}
          onchange={({ currentTarget }) => change(index, { subject: currentTarget.value })}
        >
          {#if !subjects.some(({ expression }) => expression === row.subject)}<option value={row.subject}>{row.subject}</option>{/if}
          {#each subjects as subject (subject.expression)}<option value={subject.expression}>{subject.label}</option>{/each}
        </select>
        <select
          aria-label="What holds of it"
          value={row.test}
          disabled={!me.mayChange}
          onchange={({ currentTarget }) => change(index, { test: currentTarget.value as ConditionTest })}
        >
          {#each [...new Set([...testsFor(row.subject), row.test])] as test (test)}<option value={test}>{wordsOfTest(test)}</option>{/each}
        </select>
        {#if needsValue(row.test)}
          <input
            aria-label="Compared with"
            list="condition-{index}"
            value={String(row.value ?? '')}
            disabled={!me.mayChange}
            onchange={({ currentTarget }) => change(index, { value: typed(row.subject, currentTarget.value) })}
          />
          <datalist id="condition-{index}"
            >{#each valuesFor(row.subject) as one (one)}<option value={one}></option>{/each}</datalist
          >
        {/if}
        {#if me.mayChange}
          <Button small look="quiet" aria-label="Remove this condition" onclick={() => set(rows.rows.filter((_, at) => at !== index))}
            >Remove</Button
          >
        {/if}
      </div>
    {/each}
    {#each problems as problem (problem.code + problem.message)}<p class={problem.severity}>{problem.message} {problem.hint}</p>{/each}
  {:else}
    <ExpressionBox
      label="CEL expression"
      value={value ?? ''}
      names={subjects}
      {problems}
      help="It names: {[...new Set(subjects.map(({ expression }) => expression.split('.')[0]))].join(
        ', ',
      )}. Names are completed while you type."
      disabled={!me.mayChange}
      onset={(text) => onset(text === '' ? undefined : text)}
    />
  {/if}
  <p class="words">{conditionWords(value ?? '', nameOf)}</p>
  {#if me.mayChange}
    <div class="actions">
      {#if rows && !written}<Button small onclick={add}>Add a condition</Button>{/if}
      {#if rows}<Button small look="quiet" onclick={() => (written = !written)}>{written ? 'As rows' : 'As an expression'}</Button>{/if}
    </div>
  {/if}
</Group>

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem;
  }
  select,
  input {
    min-width: 0;
    max-width: 100%;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.1rem 0.3rem;
    font-size: 0.8125rem;
  }
  input {
    width: 8rem;
  }
  .words,
  .error,
  .warning {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .error {
    color: var(--bad);
  }
  .warning {
    color: var(--warn);
  }
  .actions {
    display: flex;
    gap: 0.4rem;
  }
</style>
