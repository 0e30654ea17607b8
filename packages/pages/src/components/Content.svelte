<script lang="ts">
  import type { AnyNode } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import { renderers } from './renderers.ts';

  const { content, live }: { content: AnyNode[]; live: LivePage } = $props();
</script>

{#snippet render(nodes: AnyNode[])}
  {#each nodes as node, index (index)}
    {@const Rendered = renderers[node.show]}
    {#if Rendered && node.place !== undefined}
      <div data-place={node.place}><Rendered node={node as never} {live} {render} /></div>
    {:else if Rendered}<Rendered node={node as never} {live} {render} />{/if}
  {/each}
{/snippet}

{@render render(content)}

<style>
  /* Of drafts: it marks a place and takes none. */
  [data-place] {
    display: contents;
  }
</style>
