<script lang="ts">
  import type { Node } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';
  import Choices from './Choices.svelte';
  import Details from './Details.svelte';
  import Input from './Input.svelte';
  import Navigation from './Navigation.svelte';
  import Pager from './Pager.svelte';
  import Panel from './Panel.svelte';
  import Search from './Search.svelte';
  import Select from './Select.svelte';
  import SignIn from './SignIn.svelte';
  import Table from './Table.svelte';
  import Tabs from './Tabs.svelte';
  import Text from './Text.svelte';
  import Toggle from './Toggle.svelte';

  const { content, live }: { content: Node[]; live: LivePage } = $props();
</script>

{#snippet draw(nodes: Node[])}
  {#each nodes as node, index (index)}
    {#if node.show === 'heading' || node.show === 'text' || node.show === 'notice'}<Text {node} />
    {:else if node.show === 'link'}<p>
        {#if node.link.href}<a href={node.link.href}>{node.link.text}</a>{:else}{node.link.text}{/if}
      </p>
    {:else if node.show === 'navigation'}<Navigation {node} />
    {:else if node.show === 'search'}<Search {node} {live} />
    {:else if node.show === 'select'}<Select {node} {live} />
    {:else if node.show === 'choices'}<Choices {node} {live} />
    {:else if node.show === 'toggle'}<Toggle {node} {live} />
    {:else if node.show === 'input'}<Input {node} {live} />
    {:else if node.show === 'panel'}<Panel {node}>{@render draw(node.content)}</Panel>
    {:else if node.show === 'tabs'}<Tabs {node} {live}>{@render draw(node.content)}</Tabs>
    {:else if node.show === 'table'}<Table {node} {live} />
    {:else if node.show === 'pager'}<Pager {node} {live} />
    {:else if node.show === 'details'}<Details {node} />
    {:else if node.show === 'sign-in'}<SignIn {node} />
    {/if}
  {/each}
{/snippet}

{@render draw(content)}
