<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import AnchorLink from './AnchorLink.svelte';

  const { node }: { node: NodeOf<'details'> } = $props();
</script>

<dl>
  {#each node.entries as { label, value } (label)}
    <div>
      <dt>{label}</dt>
      <dd>
        <AnchorLink link={value} otherwise="—" />
      </dd>
    </div>
  {/each}
</dl>

<style>
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
    gap: 0.8rem 1.5rem;
    margin-block: 1rem;
  }
  dt {
    font-size: 0.85rem;
    color: var(--quiet);
  }
  dd {
    margin: 0;
    font-size: 1.05rem;
    overflow-wrap: anywhere;
  }
</style>
