<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import AnchorLink from './AnchorLink.svelte';

  const { node }: { node: NodeOf<'link'> } = $props();
</script>

<p class:button={node.look === 'button'}><AnchorLink link={node.link} /></p>

<style>
  .button :global(a) {
    display: inline-block;
    background: var(--leaf);
    color: var(--on-leaf);
    border-radius: var(--round);
    padding: 0.5rem 1.3rem;
    text-decoration: none;
  }
</style>
