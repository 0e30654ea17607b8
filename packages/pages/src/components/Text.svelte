<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';

  const { node }: { node: NodeOf<'heading'> | NodeOf<'text'> | NodeOf<'notice'> } = $props();
</script>

{#if node.show === 'heading'}
  <svelte:element this={`h${node.level}`}>{node.text}</svelte:element>
{:else if node.show === 'notice'}
  <p class="notice {node.tone}">{node.text}</p>
{:else}
  <p>{node.text}</p>
{/if}

<style>
  h1,
  h2,
  h3,
  h4 {
    font-family: var(--text);
    font-weight: 600;
    line-height: 1.2;
    margin: 1.4em 0 0.5em;
    overflow-wrap: anywhere;
  }
  h1 {
    font-size: 2rem;
    margin-top: 0.6em;
  }
  h2 {
    font-size: 1.35rem;
  }
  p {
    max-width: 42rem;
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  .notice {
    border-inline-start: 0.3rem solid var(--edge);
    background: var(--sheet);
    padding: 0.6rem 0.9rem;
    border-radius: var(--round);
  }
  .good {
    border-color: var(--good);
    background: var(--good-soft);
  }
  .warning {
    border-color: var(--warn);
    background: var(--warn-soft);
  }
</style>
