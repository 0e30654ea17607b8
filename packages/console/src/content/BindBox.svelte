<script lang="ts">
  import type { ParameterDeclaration, Problem } from '@pallmist/app/address';
  import { addParameter, namesForType } from '@pallmist/app/editing';
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
    onset: (name: string | undefined) => void;
  }
  const { draft, page, label, file, help, problems, types, required, value, onset }: Props = $props();
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

  /** Declares a parameter that fits, and binds to it. */
  function declare() {
    const [type = 'text'] = types;
    if (!draft.definition) return;
    const [of] = namesForType(draft.definition, type);
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
    {:else if me.mayChange}<Button small onclick={declare}>Declare one</Button>{/if}
  {/snippet}
</ChoiceBox>
