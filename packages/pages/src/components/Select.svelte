<script lang="ts">
  import type { SelectNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import Keeps from './Keeps.svelte';

  const { node, live }: { node: SelectNode; live: LivePage } = $props();

  function chosen(event: Event) {
    if (!live.taken || !(event.target instanceof HTMLSelectElement)) return;
    live.change({ [node.name]: event.target.value === '' ? undefined : event.target.value });
  }
</script>

<form method="get" action={node.form.action}>
  <Keeps form={node.form} />
  <label>
    <span>{node.label}</span>
    <select name={node.name} value={node.value} onchange={chosen}>
      {#each node.options as option (option.value)}
        <option value={option.value} selected={option.value === node.value}>{option.text}</option>
      {/each}
    </select>
  </label>
  {#if !live.taken}<button>Apply</button>{/if}
</form>

<style>
  form {
    display: inline-flex;
    align-items: end;
    gap: 0.4rem;
    margin: 0.3rem 1rem 0.6rem 0;
  }
  label {
    display: grid;
    gap: 0.15rem;
  }
  span {
    font-size: 0.85rem;
    color: var(--quiet);
  }
  select {
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    padding: 0 0.5rem;
    height: 2.5rem;
    max-width: 16rem;
  }
  button {
    height: 2.5rem;
    background: none;
    color: var(--leaf);
    border: 1px solid var(--leaf);
    border-radius: var(--round);
    padding: 0 0.7rem;
    cursor: pointer;
  }
</style>
