<script lang="ts">
  import Modal from '../controls/Modal.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';

  interface Props {
    draft: Draft;
    /** Of the published app, or of an earlier place of it. */
    address: string;
    onclose: () => void;
  }
  const { draft, address, onclose }: Props = $props();

  const below = $derived.by(() => {
    const { mount = '/', formerMounts = [] } = draft.publishedEdition ?? {};
    const at = [mount, ...formerMounts, draft.definition?.mount ?? mount].find((one) => one !== '/' && address.startsWith(one)) ?? '';
    return address.slice(at.length);
  });
  const sides = $derived([
    { title: 'As published', source: `/~/published/${draft.app}${below}` },
    { title: 'In the draft', source: `/~/draft/${draft.app}${below}` },
  ]);
</script>

<Modal title={address} size="whole" {onclose}>
  <div>
    {#each sides as { title, source } (title)}
      <section aria-label={title}>
        <p>{title} <a href={source} target="_blank" rel="noopener">Open in a tab</a></p>
        <!-- Only looked at: its scripts do not run. -->
        <iframe {title} src={source} sandbox="allow-same-origin"></iframe>
      </section>
    {/each}
  </div>
</Modal>

<style>
  div {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(20rem, 100%), 1fr));
    gap: 0.8rem;
    height: 100%;
  }
  section {
    display: grid;
    grid-template-rows: auto minmax(16rem, 1fr);
  }
  p {
    margin: 0 0 0.2rem;
    display: flex;
    justify-content: space-between;
    gap: 0.6rem;
  }
  iframe {
    width: 100%;
    height: 100%;
    border: 1px solid var(--edge);
    background: var(--paper);
  }
</style>
