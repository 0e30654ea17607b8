<script lang="ts">
  import type { NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import SubmitButton from './SubmitButton.svelte';

  const { node, live }: { node: NodeOf<'share'>; live: LivePage } = $props();
  interface Made {
    short: string;
    about: string;
    until: string;
  }
  /** What came of a press, for the address that was shared: another view starts empty. */
  let result: { of: string; said: string; made?: Made } | undefined = $state.raw();
  const shown = $derived(result?.of === node.href ? result : undefined);

  async function share(event: MouseEvent) {
    if (!live.hydrated || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    const url = new URL(node.href, window.location.href).href;
    try {
      if (typeof navigator.share === 'function') await navigator.share({ title: document.title, url });
      else {
        await navigator.clipboard.writeText(url);
        result = { of: node.href, said: live.shown.say('The address is copied.') };
      }
    } catch (error) {
      // A visitor who closes the share sheet has changed their mind; any other failure leaves the address to be copied by hand.
      if (!(error instanceof DOMException && error.name === 'AbortError')) result = { of: node.href, said: url };
    }
  }

  async function shorten(event: SubmitEvent) {
    if (!live.hydrated || node.short === undefined) return;
    event.preventDefault();
    const of = node.href;
    try {
      const body = new URLSearchParams({ of });
      const response = await fetch(node.short, { method: 'post', headers: { accept: 'application/json' }, body });
      if (!response.ok) throw new Error(String(response.status));
      const made = (await response.json()) as Made;
      // Where the browser does not let it be copied, it stands there to be.
      const copied = await navigator.clipboard.writeText(made.short).then(
        () => true,
        () => false,
      );
      result = {
        of,
        made,
        said: live.shown.say(copied ? 'It is copied, and leads here until {0}.' : 'It leads here until {0}.', made.until),
      };
    } catch {
      result = { of, said: live.shown.say('No short address was created. Please try again in a moment.') };
    }
  }
</script>

<div>
  <a href={node.href} onclick={share}>{node.text}</a>
  {#if node.short}
    <form method="post" action={node.short} onsubmit={shorten}>
      <input type="hidden" name="of" value={node.href} />
      <SubmitButton tone="second">{live.shown.say('As a short address')}</SubmitButton>
    </form>
  {/if}
  {#if node.qr}<a class="code" href={node.qr} target="_blank" rel="noopener">{live.shown.say('As a QR code')}</a>{/if}
  {#if shown?.made}<a class="code" href={shown.made.about} target="_blank" rel="noopener">{shown.made.short}</a>{/if}
  <span role="status">{shown?.said ?? ''}</span>
</div>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.6rem 1rem;
    margin-block: 1rem;
  }
  a:not(.code) {
    display: grid;
    align-items: center;
    min-height: 2.5rem;
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
