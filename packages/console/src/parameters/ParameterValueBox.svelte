<script lang="ts">
  import type { ParameterDeclaration, Problem } from '@pallmist/app/address';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';

  interface Props {
    label: string;
    file: string;
    draft: Draft;
    declaration: ParameterDeclaration;
    value: unknown;
    none: string;
    help: string;
    problems: readonly Problem[];
    onset: (value: unknown) => void;
  }
  const { label, file, draft, declaration, value, none, help, problems, onset }: Props = $props();

  const type = $derived(declaration.type);
  /** The values to choose from, for types with few of them. */
  const options = $derived.by(() => {
    if (type === 'boolean')
      return [
        { value: 'true', label: 'yes' },
        { value: 'false', label: 'no' },
      ];
    if (type === 'page') return Object.keys(draft.definition?.pages ?? {});
    if (type !== 'choice') return undefined;
    return Object.entries(draft.definition?.choices?.[declaration.of ?? ''] ?? {}).map(([name, choice]) => ({
      value: name,
      label: typeof choice === 'string' ? choice : choice.label,
    }));
  });
  const shown = $derived(value === undefined ? '' : typeof value === 'object' ? JSON.stringify(value) : String(value as string));
  const listId = $derived(`records-${file}-${declaration.of ?? ''}`);
  let records: { key: string; title: string }[] = $state.raw([]);

  // Keys to choose from: the first records of the collection.
  $effect(() => {
    const { of } = declaration;
    const collection = draft.definition?.collections?.[of ?? ''];
    if (type !== 'record' || of === undefined || collection === undefined || !draft.saved) return;
    const title = collection.titleField ?? collection.keyField;
    void client.call('findRecords', { app: draft.app, collection: of }, { size: 50 }).then(
      (found) => {
        records = found.records.map((record) => ({
          key: record[declaration.by ?? collection.keyField] ?? '',
          title: record[title] ?? '',
        }));
      },
      () => undefined,
    );
  });

  /** What was typed: a number, a truth value or JSON where the type has such, else its text. */
  function typed(text: string): unknown {
    if (text === '') return undefined;
    if (['integer', 'number'].includes(type) && Number.isFinite(Number(text))) return Number(text);
    if (['packed', 'list', 'range', 'sort'].includes(type) && /^\s*[[{]/.test(text)) {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        return text;
      }
    }
    return text;
  }
</script>

{#if options !== undefined}
  <ChoiceBox
    {label}
    {file}
    {help}
    {problems}
    {none}
    value={value === undefined ? undefined : String(value as string | boolean)}
    {options}
    disabled={!me.mayChange}
    onset={(text) => onset(type === 'boolean' && text !== undefined ? text === 'true' : text)}
  />
{:else}
  <TextBox
    {label}
    {file}
    {help}
    {problems}
    placeholder={none}
    when="done"
    list={type === 'record' ? listId : undefined}
    value={shown}
    disabled={!me.mayChange}
    onset={(text) => onset(typed(text.trim()))}
  />
  {#if type === 'record'}
    <datalist id={listId}
      >{#each records as record (record.key)}<option value={record.key}>{record.title}</option>{/each}</datalist
    >
  {/if}
{/if}
