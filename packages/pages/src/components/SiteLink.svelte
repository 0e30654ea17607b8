<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import AnchorLink from './AnchorLink.svelte';

  const { node }: { node: NodeOf<'site-link'> } = $props();
</script>

<p><AnchorLink link={node.link} /> <small>{node.host}</small></p>

<style>
  small {
    color: var(--quiet);
  }
</style>
