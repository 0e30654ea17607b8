<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: NodeOf<'toggle'>; live: LivePage } = $props();

  /** A switch answers to the space bar too. */
  function pressed(event: KeyboardEvent) {
    if (event.key !== ' ' || !live.hydrated) return;
    event.preventDefault();
    live.change(node.turn.change);
  }
</script>

<a href={node.turn.href} role="switch" aria-checked={node.on} onclick={follow(live, node.turn)} onkeydown={pressed}>
  <span class="track" class:on={node.on} aria-hidden="true"><span></span></span>{node.turn.text}
</a>

<style>
  a {
    display: inline-flex;
    align-items: center;
    gap: 0.5rem;
    height: 2.5rem;
    margin: 0.3rem 1rem 0.6rem 0;
    color: inherit;
    text-decoration: none;
  }
  .track {
    width: 2.2rem;
    height: 1.25rem;
    border: 1px solid var(--edge);
    border-radius: 1rem;
    background: var(--sheet);
    padding: 2px;
  }
  .track span {
    display: block;
    width: 0.9rem;
    height: 0.9rem;
    border-radius: 50%;
    background: var(--edge);
  }
  .on {
    background: var(--leaf);
    border-color: var(--leaf);
  }
  .on span {
    background: var(--on-leaf);
    margin-inline-start: auto;
  }
</style>
