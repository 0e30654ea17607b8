<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** What is wrong with what the form has sent. */
    problem?: string | undefined;
    /** Nothing but a button: it stands on the page itself. */
    plain?: boolean;
    children: Snippet;
  }
  const { problem, plain = false, children }: Props = $props();
</script>

<!-- What a form’s boxes stand on. -->
<div class:plain>
  {#if problem}<p role="alert" tabindex="-1">{problem}</p>{/if}
  {@render children()}
</div>

<style>
  div {
    display: grid;
    gap: 0.8rem;
    max-width: 34rem;
  }
  div:not(.plain) {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 1.1rem 1.3rem;
  }
  p {
    margin: 0;
    border-inline-start: 0.3rem solid var(--bad);
    background: var(--bad-soft);
    padding: 0.5rem 0.8rem;
    border-radius: var(--round);
  }
</style>
