<script lang="ts">
  import type { Change } from '@pallmist/app/editing';

  const { changes, none }: { changes: readonly Change[]; none: string } = $props();
</script>

<ul>
  {#each changes as change, index (index)}
    <li class="change" class:breaks={change.breaks}>
      <span class={change.kind}>{change.kind}</span>
      {change.words}
      {#if change.breaks}<strong>Addresses that were shared stop working.</strong>{/if}
    </li>
  {:else}<li>{none}</li>{/each}
</ul>

<style>
  ul {
    list-style: none;
    margin: 0 0 0.8rem;
    padding: 0;
    display: grid;
    gap: 0.25rem;
    font-size: 0.9rem;
    overflow-wrap: anywhere;
  }
  .change {
    display: flow-root;
    padding-inline-start: 4.6rem;
  }
  span {
    float: inline-start;
    margin-inline-start: -4.6rem;
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  .new {
    color: var(--good);
  }
  .gone {
    color: var(--bad);
  }
  .breaks {
    border-inline-start: 0.25rem solid var(--warn);
    padding-inline-start: 5.1rem;
  }
  strong {
    color: var(--warn);
  }
</style>
