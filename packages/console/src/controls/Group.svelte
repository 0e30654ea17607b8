<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** The key in the app file, shown small. */
    file?: string;
    /** A few quiet words after the label. */
    note?: string;
    tone?: 'line' | 'path' | 'query';
    problems?: readonly Problem[];
    help?: string | undefined;
    children: Snippet;
  }
  const { label, file, note, tone = 'line', problems = [], help, children }: Props = $props();
</script>

<fieldset class={tone}>
  <legend
    >{label}
    {#if file !== undefined}<code>{file}</code>{/if}
    {#if note !== undefined}<span>{note}</span>{/if}</legend
  >
  {#each problems as problem, index (index)}<p class={problem.severity}>{problem.message} {problem.hint ?? ''}</p>{/each}
  {#if help !== undefined}<p>{help}</p>{/if}
  {@render children()}
</fieldset>

<style>
  fieldset {
    border: 0;
    border-inline-start: 2px solid var(--line);
    margin: 0;
    padding: 0 0 0 0.6rem;
    display: grid;
    gap: 0.45rem;
    min-width: 0;
  }
  /* A button that stands alone keeps its own width. */
  fieldset > :global(button) {
    justify-self: start;
  }
  .path {
    border-color: var(--path);
  }
  .query {
    border-color: var(--query);
  }
  legend {
    font-weight: 600;
    font-size: 0.875rem;
    padding: 0;
  }
  code,
  span {
    color: var(--quiet);
    font-size: 0.75rem;
    font-weight: 400;
  }
  p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
    overflow-wrap: anywhere;
  }
  .error {
    color: var(--bad);
  }
  .warning {
    color: var(--warn);
  }
</style>
