<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import type { Snippet } from 'svelte';
  import Labelled from './Labelled.svelte';

  interface Props {
    label: string;
    value: string;
    help?: string | undefined;
    file?: string | undefined;
    placeholder?: string;
    lines?: number | undefined;
    code?: boolean;
    /** When it is taken: with each letter, or when the person is done. */
    when?: 'typed' | 'done';
    problems?: readonly Problem[];
    refused?: string | undefined;
    disabled?: boolean;
    beside?: Snippet | undefined;
    /** Called when “{” is typed, where a value can be picked. */
    onbrace?: (() => void) | undefined;
    /** Where the cursor is put as soon as it is there. */
    focus?: boolean;
    type?: 'text' | 'number' | 'date' | 'color' | 'email' | 'password' | 'search';
    min?: number | undefined;
    max?: number | undefined;
    required?: boolean;
    list?: string | undefined;
    autocomplete?: 'off' | 'username' | 'current-password' | 'new-password' | 'name' | 'email';
    onset: (value: string) => void;
  }
  const {
    label,
    value,
    help,
    file,
    placeholder,
    lines,
    code = false,
    when = 'typed',
    problems = [],
    refused,
    disabled = false,
    beside,
    onbrace,
    focus = false,
    type = 'text',
    min,
    max,
    required,
    list,
    autocomplete = 'off',
    onset,
  }: Props = $props();
  /** What is typed and not taken yet. */
  let typed: string | undefined = $state();
  const shown = $derived(typed ?? value);

  function typing(text: string) {
    if (when === 'typed') onset(text);
    else typed = text;
  }
  function done(text: string) {
    if (when === 'done' && text !== value) onset(text);
    typed = undefined;
  }
  function keyed(event: KeyboardEvent & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
    if (event.key === '{' && onbrace) {
      event.preventDefault();
      onbrace();
    } else if (event.key === 'Enter' && when === 'done' && lines === undefined) done(event.currentTarget.value);
    else if (event.key === 'Escape' && typed !== undefined) {
      event.stopPropagation();
      typed = undefined;
    }
  }
  function focused(node: HTMLElement) {
    if (focus) node.focus();
  }
</script>

<Labelled {label} {help} {file} {problems} {refused} {beside}>
  {#snippet children({ id, describedby, invalid })}
    {#if lines === undefined}
      <input
        {id}
        {type}
        {placeholder}
        {disabled}
        {min}
        {max}
        {required}
        {list}
        {autocomplete}
        class:code
        value={shown}
        spellcheck={!code}
        aria-describedby={describedby}
        aria-invalid={invalid}
        use:focused
        oninput={({ currentTarget }) => typing(currentTarget.value)}
        onchange={({ currentTarget }) => done(currentTarget.value)}
        onkeydown={keyed}
      />
    {:else}
      <textarea
        {id}
        {placeholder}
        {disabled}
        rows={lines}
        class:code
        value={shown}
        spellcheck={!code}
        aria-describedby={describedby}
        aria-invalid={invalid}
        use:focused
        oninput={({ currentTarget }) => typing(currentTarget.value)}
        onchange={({ currentTarget }) => done(currentTarget.value)}
        onkeydown={keyed}></textarea>
    {/if}
  {/snippet}
</Labelled>

<style>
  input,
  textarea {
    width: 100%;
    min-width: 0;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.25rem 0.45rem;
    line-height: 1.4rem;
  }
  input[type='color'] {
    width: 4rem;
    height: 2rem;
    padding: 0.1rem;
  }
  textarea {
    resize: vertical;
  }
  .code {
    font: 0.875rem/1.4rem var(--code);
  }
  [aria-invalid='true'] {
    border-color: var(--bad);
    box-shadow: 0 0 0 1px var(--bad);
  }
  :disabled {
    color: var(--quiet);
    background: var(--sunk);
  }
</style>
