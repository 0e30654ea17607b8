<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';
  import Select from './Select.svelte';

  const { node, live }: { node: NodeOf<'pager'>; live: LivePage } = $props();
</script>

{#if node.pages > 1 || node.page > 1}
  <nav aria-label={live.shown.say('Pages of the list')}>
    {#if node.previous}<a href={node.previous.href} rel="prev" onclick={follow(live, node.previous)}>{live.shown.say('Previous')}</a>{/if}
    {#each node.near as page, index (page.text)}
      {#if index > 0 && Number(page.text) - Number(node.near[index - 1]?.text) > 1}<span aria-hidden="true">…</span>{/if}
      <a
        href={page.href}
        aria-label={live.shown.say('Page {0}', page.text)}
        aria-current={page.current ? 'page' : undefined}
        onclick={follow(live, page)}>{page.text}</a
      >
    {/each}
    {#if node.next}<a href={node.next.href} rel="next" onclick={follow(live, node.next)}>{live.shown.say('Next')}</a>{/if}
    <span class="count"
      >{node.from === 0
        ? live.shown.say('none of {0}', node.total)
        : live.shown.say('{0} of {1}', `${node.from}–${node.to}`, node.total)}</span
    >
  </nav>
{:else if node.total > 0}
  <p class="count">{live.shown.say('{0} in all', node.total)}</p>
{/if}
{#if node.size && node.total > 0}<Select node={node.size} {live} />{/if}

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem;
    margin-block: 0.8rem;
  }
  a {
    min-width: 2.4rem;
    padding: 0.3rem 0.7rem;
    text-align: center;
    text-decoration: none;
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--sheet);
  }
  a[aria-current] {
    background: var(--leaf);
    border-color: var(--leaf);
    color: var(--on-leaf);
  }
  .count {
    color: var(--quiet);
  }
  nav .count {
    margin-inline-start: 0.6rem;
  }
</style>
