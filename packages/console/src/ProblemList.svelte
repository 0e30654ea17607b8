<script lang="ts">
  import type { PatchOperation, Problem } from '@pallmist/app';

  const { problems, onfix }: { problems: Problem[]; onfix: (patch: PatchOperation[]) => void } = $props();
</script>

<ul>
  {#each problems as problem, index (index)}
    <li class={problem.severity}>
      <strong>{problem.severity}</strong>
      {problem.message}
      {#if problem.hint}<span class="hint">{problem.hint}</span>{/if}
      {#if problem.line}<span class="hint">Line {problem.line}.</span>{/if}
      {#if problem.fix}{@const fix = problem.fix}<button onclick={() => onfix(fix)}>Fix it</button>{/if}
    </li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 0.4rem 0;
    padding: 0;
    display: grid;
    gap: 0.4rem;
    font-size: 0.9rem;
  }
  li {
    border-inline-start: 0.25rem solid var(--edge);
    background: var(--sheet);
    padding: 0.35rem 0.6rem;
    border-radius: 2px;
    overflow-wrap: anywhere;
  }
  .error {
    border-color: var(--bad);
    background: var(--bad-soft);
  }
  .warning {
    border-color: var(--warn);
    background: var(--warn-soft);
  }
  .hint {
    color: var(--quiet);
  }
  button {
    background: none;
    border: 1px solid currentColor;
    border-radius: var(--round);
    cursor: pointer;
    font-size: 0.85rem;
  }
</style>
