<script lang="ts">
  import { directionOf, type NodeOf } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';
  import Empty from './Empty.svelte';

  const { node, live }: { node: NodeOf<'bar-chart'>; live: LivePage } = $props();

  /** CSS pixels from one bar to the next. */
  const step = 44;
  const linked = $derived(node.bars.some(({ link }) => link));
  type Bar = (typeof node.bars)[number];
  /** A text begins at the edge where its language begins, and so does its bar. */
  const rightToLeft = $derived(directionOf(live.shown.language) === 'rtl');
  const [start, end] = $derived(rightToLeft ? ['100%', '0'] : ['0', '100%']);
  const percentOf = (length: number) => Math.max(0.6, length * 100);
</script>

{#snippet drawn({ text, count, length }: Bar, top: number)}
  <rect class="area" x="0" y={top} width="100%" height={step} />
  <text x={start} y={top + 16}>{text.length > 48 ? `${text.slice(0, 47)}…` : text}</text>
  <text class="count" x={end} y={top + 16}>{count}</text>
  <rect class="track" x="0" y={top + 23} width="100%" height="12" rx="3" />
  {#if count > 0}<rect
      class="bar"
      x="{rightToLeft ? 100 - percentOf(length) : 0}%"
      y={top + 23}
      width="{percentOf(length)}%"
      height="12"
      rx="3"
    />{/if}
{/snippet}

{#if node.bars.length === 0}
  <Empty text={node.empty} />
{:else}
  <figure class:busy={live.busy}>
    <figcaption id="{node.id}-label">{node.label}</figcaption>
    <svg
      width="100%"
      height={node.bars.length * step}
      role={linked ? 'group' : 'img'}
      aria-labelledby="{node.id}-label"
      aria-describedby="{node.id}-summary"
    >
      {#each node.bars as bar, index (bar.text)}
        {#if bar.link}
          <a href={bar.link.href} aria-current={bar.current ? 'true' : undefined} onclick={follow(live, bar.link)}>
            {@render drawn(bar, index * step)}
          </a>
        {:else}
          <g aria-hidden={linked ? 'true' : undefined}>{@render drawn(bar, index * step)}</g>
        {/if}
      {/each}
    </svg>
    <p id="{node.id}-summary" hidden>{node.summary}</p>
    <details>
      <summary>{live.shown.say('As a table')}</summary>
      <table aria-labelledby="{node.id}-label">
        <tbody>
          {#each node.bars as bar (bar.text)}
            <tr><th scope="row">{bar.text}</th><td>{bar.count}</td></tr>
          {/each}
        </tbody>
      </table>
    </details>
  </figure>
{/if}

<style>
  figure {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    margin: 1rem 0;
    padding: 0.9rem 1.2rem;
  }
  .busy {
    opacity: 0.55;
  }
  figcaption {
    font-weight: 600;
    margin-block-end: 0.3rem;
  }
  svg {
    display: block;
    overflow: visible;
  }
  text {
    fill: var(--ink);
    font-size: 0.9rem;
  }
  .count {
    text-anchor: end;
    fill: var(--quiet);
    font-variant-numeric: tabular-nums;
  }
  .area {
    fill: transparent;
  }
  .track {
    fill: var(--line);
  }
  .bar {
    fill: var(--leaf);
  }
  a:hover text {
    text-decoration: underline;
  }
  a[aria-current] text {
    font-weight: 700;
  }
  details {
    margin-block-start: 0.4rem;
    color: var(--quiet);
    font-size: 0.9rem;
  }
  table {
    border-collapse: collapse;
  }
  th {
    font-weight: 400;
    text-align: start;
  }
  th,
  td {
    padding: 0.15rem 1.5rem 0.15rem 0;
  }
  td {
    text-align: end;
    font-variant-numeric: tabular-nums;
  }
</style>
