<script lang="ts">
  import type { ShareNode } from '@pallmist/core/view';
  import type { LivePage } from '../live-page.ts';

  const { node, live }: { node: ShareNode; live: LivePage } = $props();
  let said = $state.raw('');

  async function share(event: MouseEvent) {
    if (!live.taken || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    const url = new URL(node.href, window.location.href).href;
    try {
      if (typeof navigator.share === 'function') await navigator.share({ title: document.title, url });
      else {
        await navigator.clipboard.writeText(url);
        said = 'The address is copied.';
      }
    } catch (error) {
      // Whoever closes the share sheet has changed their mind; anything else leaves the address to be copied by hand.
      if (!(error instanceof DOMException && error.name === 'AbortError')) said = url;
    }
  }
</script>

<p>
  <a href={node.href} onclick={share}>{node.text}</a>
  {#if node.qr}<a class="code" href={node.qr} target="_blank" rel="noopener">As a QR code</a>{/if}
  <span role="status">{said}</span>
</p>

<style>
  a:not(.code) {
    display: inline-block;
    border: 1px solid var(--leaf);
    border-radius: var(--round);
    padding: 0.25rem 0.9rem;
    text-decoration: none;
  }
  span {
    color: var(--quiet);
    overflow-wrap: anywhere;
  }
</style>
