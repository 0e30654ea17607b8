<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import { asWritten, type AvailableValue, type WantedType } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import ValuePicker from './ValuePicker.svelte';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    label: string;
    file?: string | undefined;
    help?: string | undefined;
    problems?: readonly Problem[];
    value: string;
    /** A text may hold values between words; a value is one whole expression, or a text as it stands. */
    into: 'text' | 'value';
    wanted?: WantedType;
    row?: string | undefined;
    saved?: string | undefined;
    lines?: number | undefined;
    placeholder?: string;
    onset: (value: string) => void;
  }
  const {
    draft,
    page,
    frame,
    label,
    file,
    help,
    problems = [],
    value,
    into,
    wanted = into === 'text' ? 'text' : 'any',
    row,
    saved,
    lines,
    placeholder,
    onset,
  }: Props = $props();
  let picking = $state(false);

  function take(picked: Pick<AvailableValue, 'expression' | 'optional'>) {
    picking = false;
    const written = asWritten(picked, into);
    onset(into === 'text' && value !== '' ? value + written : written);
  }
</script>

<TextBox
  {label}
  {file}
  {help}
  {problems}
  {value}
  {lines}
  placeholder={placeholder ?? ''}
  disabled={!me.mayChange}
  onbrace={() => (picking = true)}
  {onset}
>
  {#snippet beside()}
    {#if me.mayChange}<Button small look="quiet" aria-label="Pick a value for {label.toLowerCase()}" onclick={() => (picking = true)}
        >Pick</Button
      >{/if}
  {/snippet}
</TextBox>
{#if picking}
  <ValuePicker
    {draft}
    place={{ page, row, saved }}
    {wanted}
    values={frame.values}
    title="A value for “{label.toLowerCase()}”"
    onpick={take}
    onbrace={() => {
      picking = false;
      onset(`${value}{`);
    }}
    onclose={() => (picking = false)}
  />
{/if}
