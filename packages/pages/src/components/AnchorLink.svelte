<script lang="ts">
  import type { Anchor } from '@pallmist/app/view';

  const { link, otherwise = '' }: { link: Anchor; otherwise?: string } = $props();
</script>

<!-- Without an address it is a text: a link that leads astray is none. -->
{#if link.href}<a href={link.href} target={link.newWindow ? '_blank' : undefined} rel={link.newWindow ? 'noopener' : undefined}
    >{link.text || otherwise}{#if link.newWindow}<span class="says"> {link.newWindow}</span>{/if}</a
  >{:else}{link.text || otherwise}{/if}

<style>
  .says {
    position: absolute;
    clip-path: inset(50%);
    width: 1px;
    height: 1px;
    overflow: hidden;
  }
</style>
