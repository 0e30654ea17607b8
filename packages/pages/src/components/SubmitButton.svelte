<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** The one that a form is for; one beside it; one that takes something away. */
    tone?: 'main' | 'second' | 'removes';
    name?: string | undefined;
    value?: string | undefined;
    /** The form that it sends, where it does not stand inside it. */
    form?: string | undefined;
    disabled?: boolean;
    children: Snippet;
  }
  const { tone = 'main', name, value, form, disabled = false, children }: Props = $props();
</script>

<!-- Every button that sends a form. -->
<button class={tone} {name} {value} {form} {disabled}>{@render children()}</button>

<style>
  button {
    justify-self: start;
    min-height: 2.5rem;
    background: none;
    color: var(--leaf);
    border: 1px solid currentColor;
    border-radius: var(--round);
    padding: 0.3rem 1.2rem;
    cursor: pointer;
  }
  .main {
    background: var(--leaf);
    color: var(--on-leaf);
    border-color: var(--leaf);
  }
  .removes {
    color: var(--bad);
  }
  button:disabled {
    opacity: 0.6;
  }
</style>
