<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import AnchorLink from './AnchorLink.svelte';
  import Empty from './Empty.svelte';

  const { node, live }: { node: NodeOf<'list'>; live: LivePage } = $props();
</script>

{#if node.entries.length === 0}
  <Empty text={node.empty} />
{:else}
  <ul aria-label={node.label} class:busy={live.busy}>
    {#each node.entries as entry (entry.key)}
      <li>
        {#if entry.picture}<img src={entry.picture} alt="" loading="lazy" />{/if}
        <p class="text"><AnchorLink link={entry.link} otherwise={entry.key} /></p>
        {#if entry.detail}<p class="detail">{entry.detail}</p>{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    list-style: none;
    margin: 0.8rem 0;
    padding: 0;
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(15rem, 100%), 1fr));
    gap: 1rem;
  }
  .busy {
    opacity: 0.55;
  }
  li {
    position: relative;
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    overflow: hidden;
    padding-block-end: 0.8rem;
  }
  li:hover {
    border-color: var(--leaf);
  }
  img {
    display: block;
    width: 100%;
    height: auto;
  }
  p {
    margin: 0.6rem 1rem 0;
    overflow-wrap: anywhere;
  }
  .text {
    font-weight: 600;
  }
  .detail {
    margin-block-start: 0.2rem;
    color: var(--quiet);
    font-size: 0.9rem;
  }
  /* The link of an entry is as large as the entry. */
  .text :global(a)::after {
    content: '';
    position: absolute;
    inset: 0;
  }
</style>
