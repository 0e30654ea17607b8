<script lang="ts">
  import type { Problem } from '@pallmist/app/address';
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** A sentence that says what it is for. */
    help?: string | undefined;
    /** The key in the app file, shown small. */
    file?: string | undefined;
    problems?: readonly Problem[];
    /** Why what was typed is not taken. */
    refused?: string | undefined;
    children: Snippet<[{ id: string; describedby: string | undefined; invalid: boolean }]>;
    /** What stands beside the label. */
    beside?: Snippet | undefined;
  }
  const { label, help, file, problems = [], refused, children, beside }: Props = $props();
  const id = $props.id();
  const invalid = $derived(refused !== undefined || problems.some(({ severity }) => severity === 'error'));
  const describedby = $derived(help === undefined && problems.length === 0 && refused === undefined ? undefined : `${id}-help`);
</script>

<div class="field">
  <div class="head">
    <label for={id}>{label}</label>
    {#if file !== undefined}<code>{file}</code>{/if}
    {#if beside}<span class="beside">{@render beside()}</span>{/if}
  </div>
  {@render children({ id, describedby, invalid })}
  {#if describedby !== undefined}
    <div class="help" id={describedby}>
      {#if refused !== undefined}<p class="error" role="alert">{refused}</p>{/if}
      {#each problems as problem, index (index)}
        <p class={problem.severity}>{problem.message} {problem.hint ?? ''}</p>
      {/each}
      {#if help !== undefined}<p>{help}</p>{/if}
    </div>
  {/if}
</div>

<style>
  .field {
    display: grid;
    gap: 0.15rem;
    min-width: 0;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 0.4rem;
  }
  label {
    font-weight: 600;
    font-size: 0.875rem;
  }
  code {
    color: var(--quiet);
    font-size: 0.75rem;
  }
  .beside {
    margin-inline-start: auto;
  }
  .help p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
    overflow-wrap: anywhere;
  }
  .help .error {
    color: var(--bad);
  }
  .help .warning {
    color: var(--warn);
  }
</style>
