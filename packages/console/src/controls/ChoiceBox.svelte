<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import type { Snippet } from 'svelte';
  import Labelled from './Labelled.svelte';

  interface Option {
    value: string;
    label: string;
  }
  interface Props {
    label: string;
    value: string | undefined;
    options: readonly (Option | string)[];
    /** What stands for no value, where none may be chosen. */
    none?: string | undefined;
    help?: string | undefined;
    file?: string | undefined;
    problems?: readonly Problem[];
    disabled?: boolean;
    beside?: Snippet | undefined;
    onset: (value: string | undefined) => void;
  }
  const { label, value, options, none, help, file, problems = [], disabled = false, beside, onset }: Props = $props();
  const all = $derived(options.map((option): Option => (typeof option === 'string' ? { value: option, label: option } : option)));
  /** A value that is not among the options is shown all the same: the check says what is wrong with it. */
  const stray = $derived(value !== undefined && value !== '' && !all.some((option) => option.value === value));
</script>

<Labelled {label} {help} {file} {problems} {beside}>
  {#snippet children({ id, describedby, invalid })}
    <select
      {id}
      {disabled}
      value={value ?? ''}
      aria-describedby={describedby}
      aria-invalid={invalid}
      onchange={({ currentTarget }) => onset(currentTarget.value === '' ? undefined : currentTarget.value)}
    >
      {#if none !== undefined || value === undefined || value === ''}<option value="">{none ?? 'Choose …'}</option>{/if}
      {#if stray}<option {value}>{value} (not there)</option>{/if}
      {#each all as option (option.value)}<option value={option.value}>{option.label}</option>{/each}
    </select>
  {/snippet}
</Labelled>

<style>
  select {
    width: 100%;
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.28rem 0.4rem;
  }
  [aria-invalid='true'] {
    border-color: var(--bad);
    box-shadow: 0 0 0 1px var(--bad);
  }
</style>
