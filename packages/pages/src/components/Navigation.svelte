<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import { follow } from '../follow.ts';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: NodeOf<'navigation'>; live?: LivePage } = $props();
</script>

<nav aria-label={node.label}>
  <ul>
    {#each node.links as link (link.text)}
      <li>
        <a
          href={link.href}
          target={link.newWindow ? '_blank' : undefined}
          rel={link.newWindow ? 'noopener' : undefined}
          aria-current={link.current}
          onclick={live && link.href && link.change ? follow(live, { text: link.text, href: link.href, change: link.change }) : undefined}
          >{link.text}</a
        >
      </li>
    {/each}
  </ul>
</nav>

<style>
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.1rem;
    list-style: none;
    margin: 0;
    padding: 0;
  }
  a {
    display: block;
    padding: 0.35rem 0;
    color: var(--ink);
    text-decoration: none;
    border-block-end: 3px solid transparent;
  }
  a:hover {
    border-color: var(--line);
  }
  a[aria-current] {
    border-color: var(--leaf);
  }
</style>
