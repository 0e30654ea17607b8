<script lang="ts">
  import type { Node } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import AnchorLink from './AnchorLink.svelte';
  import Back from './Back.svelte';
  import Checkboxes from './Checkboxes.svelte';
  import Dialog from './Dialog.svelte';
  import Image from './Image.svelte';
  import Radio from './Radio.svelte';
  import Details from './Details.svelte';
  import { drawers } from './drawers.ts';
  import Input from './Input.svelte';
  import Navigation from './Navigation.svelte';
  import Pager from './Pager.svelte';
  import Panel from './Panel.svelte';
  import Search from './Search.svelte';
  import Select from './Select.svelte';
  import Table from './Table.svelte';
  import Tabs from './Tabs.svelte';
  import Text from './Text.svelte';
  import Toggle from './Toggle.svelte';

  const { content, live }: { content: Node[]; live: LivePage } = $props();
</script>

{#snippet draw(nodes: Node[])}
  {#each nodes as node, index (index)}
    {#if node.show === 'heading' || node.show === 'text' || node.show === 'notice'}<Text {node} />
    {:else if node.show === 'image'}<Image {node} />
    {:else if node.show === 'link'}<p class:button={node.look === 'button'}><AnchorLink link={node.link} /></p>
    {:else if node.show === 'site-link'}<p><AnchorLink link={node.link} /> <small>{node.host}</small></p>
    {:else if node.show === 'back'}<Back {node} {live} />
    {:else if node.show === 'navigation'}<Navigation {node} {live} />
    {:else if node.show === 'search'}<Search {node} {live} />
    {:else if node.show === 'select'}<Select {node} {live} />
    {:else if node.show === 'radio'}<Radio {node} {live} />
    {:else if node.show === 'checkboxes'}<Checkboxes {node} {live} />
    {:else if node.show === 'toggle'}<Toggle {node} {live} />
    {:else if node.show === 'input'}<Input {node} {live} />
    {:else if node.show === 'views'}{@render draw(node.content)}
    {:else if node.show === 'dialog'}<Dialog {node} {live}>{@render draw(node.content)}</Dialog>
    {:else if node.show === 'panel'}<Panel {node}>{@render draw(node.content)}</Panel>
    {:else if node.show === 'tabs'}<Tabs {node} {live}>{@render draw(node.content)}</Tabs>
    {:else if node.show === 'table'}<Table {node} {live} />
    {:else if node.show === 'pager'}<Pager {node} {live} />
    {:else if node.show === 'details'}<Details {node} />
    {:else}
      {@const Drawn = drawers[node.show]}
      {#if Drawn}<Drawn node={node as never} {live} />{/if}
    {/if}
  {/each}
{/snippet}

{@render draw(content)}

<style>
  small {
    color: var(--quiet);
  }
  .button :global(a) {
    display: inline-block;
    background: var(--leaf);
    color: var(--on-leaf);
    border-radius: var(--round);
    padding: 0.5rem 1.3rem;
    text-decoration: none;
  }
</style>
