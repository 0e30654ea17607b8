<script lang="ts">
  import type { FieldDefinition } from '@pallmist/app/editing';
  import type { Draft } from '../draft/draft.svelte.ts';

  interface Props {
    draft: Draft;
    label: string;
    field: FieldDefinition;
    value: string;
    /** What the record is called that the cell refers to. */
    title?: string | undefined;
    placeholder?: string;
    problem?: string | undefined;
    disabled: boolean;
    onset: (text: string) => void;
    onpaste: (event: ClipboardEvent) => void;
  }
  const { draft, label, field, value, title, placeholder = '', problem, disabled, onset, onpaste }: Props = $props();
  const choices = $derived(
    field.type === 'choice'
      ? Object.entries(draft.definition?.choices?.[field.of ?? ''] ?? {}).map(
          ([name, choice]) => [name, typeof choice === 'string' ? choice : choice.label] as const,
        )
      : [],
  );

  /** Enter and the arrows go to the cell below or above, as in a spreadsheet. */
  function keyed(event: KeyboardEvent & { currentTarget: HTMLElement }) {
    const step = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined || (event.currentTarget instanceof HTMLSelectElement && event.key !== 'Enter')) return;
    // In a text of several lines these keys have their own meaning.
    if (event.currentTarget instanceof HTMLTextAreaElement) return;
    const cell = event.currentTarget.closest('td');
    const row = cell?.parentElement;
    const next = step === 1 ? row?.nextElementSibling : row?.previousElementSibling;
    const target = next?.children[cell?.cellIndex ?? 0]?.querySelector<HTMLElement>('input, select, textarea');
    if (!target) return;
    event.preventDefault();
    target.focus();
  }
</script>

{#if field.type === 'choice' || field.type === 'boolean'}
  <select
    aria-label={label}
    aria-invalid={problem !== undefined}
    {value}
    {disabled}
    onchange={({ currentTarget }) => onset(currentTarget.value)}
    onkeydown={keyed}
  >
    <option value=""></option>
    {#if field.type === 'boolean'}<option value="true">yes</option><option value="false">no</option>
    {:else}{#each choices as [name, text] (name)}<option value={name}>{text}</option>{/each}{/if}
  </select>
{:else if value.includes('\n')}
  <!-- A box of one line would put all lines into one. -->
  <textarea
    aria-label={label}
    aria-invalid={problem !== undefined}
    {value}
    {disabled}
    rows="2"
    onchange={({ currentTarget }) => onset(currentTarget.value)}
    onkeydown={keyed}></textarea>
{:else}
  <input
    aria-label={label}
    aria-invalid={problem !== undefined}
    {value}
    {placeholder}
    {disabled}
    title={title ?? value}
    onchange={({ currentTarget }) => onset(currentTarget.value)}
    {onpaste}
    onkeydown={keyed}
  />
{/if}
{#if title !== undefined && title !== value}<span class="title">{title}</span>{/if}
{#if problem !== undefined}<span class="problem" role="alert">{problem}</span>{/if}

<style>
  input,
  textarea,
  select {
    border: 0;
    background: none;
    padding: 0.2rem 0.5rem;
    width: 100%;
    min-width: 7rem;
    font-size: 0.875rem;
    text-overflow: ellipsis;
  }
  input:focus,
  textarea:focus,
  select:focus {
    background: var(--paper);
  }
  [aria-invalid='true'] {
    box-shadow: inset 0 0 0 2px var(--bad);
  }
  .title,
  .problem {
    display: block;
    padding: 0 0.5rem 0.15rem;
    font-size: 0.75rem;
    color: var(--quiet);
  }
  .problem {
    color: var(--bad);
    max-width: 14rem;
  }
</style>
