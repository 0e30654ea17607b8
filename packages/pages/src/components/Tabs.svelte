<script lang="ts">
  import type { AnyNode, NodeOf } from '@pallmist/app/view';
  import type { Snippet } from 'svelte';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live, render }: { node: NodeOf<'tabs'>; live: LivePage; render: Snippet<[AnyNode[]]> } = $props();
</script>

<nav aria-label={node.label}>
  {#each node.tabs as tab (tab.text)}
    <a href={tab.href} aria-current={tab.current ? 'true' : undefined} onclick={follow(live, tab)}>{tab.text}</a>
  {/each}
</nav>
<div id={node.id}>{@render render(node.content)}</div>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem;
    border-block-end: 1px solid var(--line);
    margin-block-start: 1rem;
  }
  a {
    padding: 0.5rem 1rem;
    color: var(--quiet);
    text-decoration: none;
    border: 1px solid transparent;
    border-block-end: 0;
    border-radius: var(--round) var(--round) 0 0;
    margin-block-end: -1px;
  }
  a:hover {
    color: var(--ink);
  }
  a[aria-current] {
    color: var(--ink);
    background: var(--sheet);
    border-color: var(--line);
    box-shadow: inset 0 3px 0 var(--leaf);
  }
  div {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-block-start: 0;
    padding: 0.5rem 1.2rem 1.2rem;
    min-height: 12rem;
  }
</style>
