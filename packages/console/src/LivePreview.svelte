<script lang="ts">
  import { type CompiledApp, readAddress, writeAddress } from '@pallmist/app/address';
  import type { AppDefinition } from '@pallmist/app';
  import AddressBar from './AddressBar.svelte';
  import { place } from './place.svelte.ts';
  import ReadingTable from './ReadingTable.svelte';
  import { sampleValues } from './samples.ts';
  import type { DraftEditor } from './draft-editor.svelte.ts';

  interface Props {
    editor: DraftEditor;
    definition: AppDefinition;
    compiled: CompiledApp;
    page: string;
  }
  const { editor, definition, compiled, page }: Props = $props();

  const draftMount = $derived(`/~/draft/${editor.app}`);
  const sampled = $derived(writeAddress(compiled, page, sampleValues(compiled, page)));
  /** The address in the app, as the public will see it. */
  const address = $derived(place.text('at') ?? sampled.address ?? '');
  let typed: string | undefined = $state();
  const reading = $derived(readAddress(compiled, typed ?? address));
  let frame: HTMLIFrameElement | undefined = $state();
  /** What the frame shows already, so that following it does not load it again. */
  let inFrame = '';

  const toDraft = (own: string) => (own.startsWith(compiled.mount) ? draftMount + own.slice(compiled.mount.length) : draftMount + own);
  const fromDraft = (draft: string) => (draft.startsWith(draftMount) ? compiled.mount + draft.slice(draftMount.length) : draft);

  // The frame follows the address; a saved draft is loaded again.
  $effect(() => {
    const wanted = toDraft(address);
    void editor.revision;
    if (!frame || address === '') return;
    if (inFrame === `${editor.revision} ${wanted}`) return;
    inFrame = `${editor.revision} ${wanted}`;
    frame.contentWindow?.location.replace(wanted);
  });

  /** The person has changed something in the page, or followed a link there. */
  function follow(draftAddress: string) {
    if (!draftAddress.startsWith(draftMount)) return;
    inFrame = `${editor.revision} ${draftAddress}`;
    const own = fromDraft(draftAddress);
    const found = editor.savedApp && readAddress(editor.savedApp, own).page;
    place.change({ ...(found === undefined || found === page ? {} : { page: found }), at: own });
  }

  function listen(event: MessageEvent<unknown>) {
    if (event.origin !== window.location.origin || event.source !== frame?.contentWindow) return;
    const { data } = event;
    if (typeof data === 'object' && data !== null && 'pallmist' in data && 'address' in data && typeof data.address === 'string')
      follow(data.address);
  }
</script>

<svelte:window onmessage={listen} />

<div class="preview">
  <AddressBar
    app={compiled}
    {address}
    ongo={(own) => {
      typed = undefined;
      place.change({ at: own });
    }}
    ontype={(text) => (typed = text)}
  />
  {#if editor.dirty}<p class="note">The page below is the saved draft; save to see your changes.</p>{/if}
  {#if address === ''}
    <p class="note">{sampled.problems[0]?.message} Give it a sample on the left to see the page.</p>
  {/if}
  <iframe
    bind:this={frame}
    title="The page {page} of {definition.title}, as the draft has it"
    onload={({ currentTarget }) => {
      const location = (currentTarget as HTMLIFrameElement).contentWindow?.location;
      if (location && location.pathname !== 'blank') follow(location.pathname + location.search + location.hash);
    }}
  ></iframe>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="reading" role="group" aria-label="The reading, to be scrolled" tabindex="0"><ReadingTable {reading} app={compiled} /></div>
</div>

<style>
  .preview {
    display: grid;
    grid-template-rows: auto auto minmax(16rem, 1fr) auto;
    gap: 0.5rem;
    height: 100%;
    min-height: 0;
  }
  iframe {
    grid-row: 3;
    width: 100%;
    height: 100%;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
  }
  .reading {
    grid-row: 4;
    max-height: 24vh;
    overflow: auto;
  }
  .note {
    margin: 0;
    font-size: 0.85rem;
    color: var(--warn);
  }
</style>
