<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Names the form for screen readers. */
    label: string;
    onsubmit: () => void;
    /** Boxes, then the button that submits them. */
    children: Snippet;
  }
  const { label, onsubmit, children }: Props = $props();

  function submitted(event: SubmitEvent) {
    event.preventDefault();
    onsubmit();
  }
</script>

<form onsubmit={submitted} aria-label={label}>{@render children()}</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 0.6rem;
    align-items: end;
    max-width: 52rem;
    margin-block: 0.5rem;
  }
  form > :global(:not(button)) {
    flex: 1 1 16rem;
  }
</style>
