<script lang="ts">
  import type { Anchor } from '@pallmist/app/view';

  const { link, otherwise = '' }: { link: Anchor; otherwise?: string } = $props();
</script>

<!-- Without an address it is a text: a link that leads astray is none. -->
{#if link.href}<a href={link.href} target={link.newWindow ? '_blank' : undefined} rel={link.newWindow ? 'noopener' : undefined}
    >{link.text || otherwise}{#if link.newWindow}<span class="visually-hidden"> {link.newWindow}</span>{/if}</a
  >{:else}{link.text || otherwise}{/if}
