<script lang="ts">
  import type { ParameterDeclaration, Problem } from '@pallmist/app/address';
  import { addChoices, addParameter, namesForType } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  interface Props {
    draft: Draft;
    page: string;
    label: string;
    file: string;
    help: string | undefined;
    problems: readonly Problem[];
    /** Types of parameters that fit. */
    types: readonly string[];
    required: boolean;
    value: string;
    /** Its choices are its own: a new list of this name is proposed. */
    newList?: string | undefined;
    onset: (name: string | undefined) => void;
  }
  const { draft, page, label, file, help, problems, types, required, value, newList, onset }: Props = $props();
  const declared = $derived({ ...draft.definition?.parameters, ...draft.definition?.pages[page]?.parameters } as Record<
    string,
    ParameterDeclaration
  >);
  const fitting = $derived(
    Object.entries(declared).flatMap(([name, { type, of, label: words }]) =>
      types.includes(type) ? [{ value: name, label: `${name}: ${words ?? type}${of === undefined ? '' : ` of ${of}`}` }] : [],
    ),
  );
  const known = $derived(fitting.some((one) => one.value === value));

  const lists = $derived(types[0] === 'choice' ? Object.keys(draft.definition?.choices ?? {}) : []);
  /** The choices list that is taken; a new one when none is chosen. */
  let list: string | undefined = $state();

  /** Declares a parameter that fits, and binds to it. */
  function declare() {
    const [type = 'text'] = types;
    if (!draft.definition) return;
    let of: string | undefined = type === 'choice' ? list : namesForType(draft.definition, type)[0];
    if (type === 'choice' && of === undefined) {
      const made = addChoices(draft.definition, newList ?? 'choices', { first: 'First', second: 'Second' });
      if (!draft.edit(made.patch, `Added the choices list “${made.name}”`)) return;
      of = made.name;
    }
    const names: Record<string, string> = {
      text: 'q',
      choice: of ?? 'choice',
      record: of ?? 'record',
      integer: 'page',
      boolean: 'on',
      list: 'chosen',
      sort: 'sort',
    };
    const declaration: ParameterDeclaration = {
      type,
      ...(of === undefined ? {} : { of }),
      ...(type === 'list' ? { items: { type: 'text' } } : {}),
      ...(type === 'text' ? { blank: 'absent' as const } : {}),
      ...(type === 'choice' ? { default: Object.keys(draft.definition.choices?.[of ?? ''] ?? {})[0] } : {}),
    };
    const made = addParameter(draft.definition, page, value !== '' && !known ? value : (names[type] ?? type), declaration);
    if (draft.edit(made.patch, `Declared the parameter “${made.name}”`)) onset(made.name);
  }
</script>

<ChoiceBox
  {label}
  {file}
  {help}
  {problems}
  value={value === '' ? undefined : value}
  options={fitting}
  none={required ? undefined : 'nothing'}
  disabled={!me.mayChange}
  {onset}
>
  {#snippet beside()}
    {#if known}<Button small look="quiet" onclick={() => place.change({ parameter: value })}>Go to {value}</Button>
    {:else if me.mayChange}
      {#if types[0] === 'choice'}
        <select
          aria-label="Choices list of the new parameter"
          value={list ?? ''}
          onchange={({ currentTarget }) => (list = currentTarget.value || undefined)}
        >
          <option value="">a new list</option>{#each lists as name (name)}<option value={name}>{name}</option>{/each}
        </select>
      {/if}
      <Button small onclick={declare}>Declare one</Button>
    {/if}
  {/snippet}
</ChoiceBox>

<style>
  select {
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--sheet);
    font-size: 0.8125rem;
    max-width: 8rem;
  }
</style>
