<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';

  interface Props extends HTMLButtonAttributes {
    look?: 'main' | 'plain' | 'quiet' | 'danger';
    small?: boolean;
    children: Snippet;
  }
  const { look = 'plain', small = false, children, ...rest }: Props = $props();
</script>

<button type="button" class={look} class:small {...rest}>{@render children()}</button>

<style>
  button {
    border: 1px solid var(--leaf);
    border-radius: var(--round);
    padding: 0.3rem 0.8rem;
    background: var(--sheet);
    color: var(--leaf);
    cursor: pointer;
    white-space: nowrap;
  }
  .main {
    background: var(--leaf);
    color: var(--on-leaf);
  }
  .quiet {
    border-color: var(--line);
    color: var(--ink);
  }
  .danger {
    border-color: var(--bad);
    color: var(--bad);
  }
  .small {
    padding: 0.1rem 0.5rem;
    font-size: 0.8125rem;
  }
  button:hover:not(:disabled) {
    background: var(--leaf-soft);
    color: var(--ink);
  }
  .main:hover:not(:disabled) {
    background: var(--ink);
    color: var(--paper);
  }
  button:disabled {
    cursor: default;
    border-color: var(--line);
    color: var(--quiet);
    background: none;
  }
  button[aria-pressed='true'],
  button[aria-current='true'] {
    background: var(--leaf-soft);
    border-color: var(--leaf);
    color: var(--ink);
    font-weight: 600;
  }
</style>
