<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** Headings of the columns; one that begins with “~” is for screen readers alone. */
    head: readonly string[];
    /** The rows. */
    children: Snippet;
  }
  const { head, children }: Props = $props();
</script>

<table>
  <thead>
    <tr>
      {#each head as title (title)}
        <th scope="col"
          >{#if title.startsWith('~')}<span class="visually-hidden">{title.slice(1)}</span>{:else}{title}{/if}</th
        >
      {/each}
    </tr>
  </thead>
  <tbody>{@render children()}</tbody>
</table>

<style>
  table {
    border-collapse: collapse;
    background: var(--sheet);
    width: 100%;
    font-size: 0.875rem;
  }
  th,
  tbody :global(:is(th, td)) {
    text-align: start;
    padding: 0.4rem 0.7rem;
    border-block-end: 1px solid var(--line);
    overflow-wrap: anywhere;
    vertical-align: top;
  }
  tbody :global(th) {
    font-weight: 400;
  }
  tbody :global(.number) {
    text-align: end;
    font-variant-numeric: tabular-nums;
  }
</style>
