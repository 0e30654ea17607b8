<script lang="ts">
  import type { PatchOperation, Problem } from '@pallmist/app/address';
  import Button from './Button.svelte';

  interface Props {
    problems: readonly Problem[];
    /** What the place of a problem is called; it is not said when left out. */
    placeOf?: (problem: Problem) => {
      words: string;
      href: string;
      follow: (event: MouseEvent & { currentTarget: HTMLAnchorElement }) => void;
    };
    onfix?: ((patch: PatchOperation[], problem: Problem) => void) | undefined;
  }
  const { problems, placeOf, onfix }: Props = $props();
</script>

<ul>
  {#each problems as problem, index (index)}
    <li class={problem.severity}>
      <div>
        <strong>{problem.severity}</strong>
        {problem.message}
        {#if problem.hint}<span class="hint">{problem.hint}</span>{/if}
        {#if placeOf}{@const at = placeOf(problem)}<a href={at.href} onclick={at.follow}>{at.words}</a>{/if}
      </div>
      {#if problem.fix && onfix}
        {@const fix = problem.fix}
        <Button small onclick={() => onfix(fix, problem)}>Fix it</Button>
      {/if}
    </li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 0.35rem;
  }
  li {
    display: flex;
    gap: 0.6rem;
    align-items: start;
    justify-content: space-between;
    border-inline-start: 0.25rem solid var(--edge);
    background: var(--sheet);
    padding: 0.35rem 0.6rem;
    border-radius: 2px;
    overflow-wrap: anywhere;
    font-size: 0.875rem;
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
</style>
