<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import { everyPage, mapApp } from '@pallmist/app/editing';
  import { cutText, layOutMap, lineLabel, middleOf, pageHeight, pageWidth, pathThrough } from '@pallmist/app/map-layout';
  import Button from '../controls/Button.svelte';
  import EmptyState from '../controls/EmptyState.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from '../problems/place-link.ts';
  import { download } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft }: { draft: Draft } = $props();
  const map = $derived(draft.definition ? mapApp(draft.definition) : { pages: [], links: [] });
  const picture = $derived(layOutMap(map));
  const parameters = $derived([...new Set(map.links.flatMap(({ sends }) => sends))].sort());
  const parameter = $derived(place.text('parameter'));
  const onEvery = $derived(map.links.filter(({ from }) => from === everyPage));
  let svg: SVGSVGElement | undefined = $state();
  let holderWidth = $state(0);
  let zoom: number | undefined = $state();
  /** The whole picture is shown at first, as far as it can be read then. */
  const scale = $derived(zoom ?? Math.min(1, Math.max(0.55, (holderWidth - 24) / picture.width)));

  const isShown = (sends: readonly string[]) => parameter === undefined || sends.includes(parameter);
  const wrong = (name: string) => draft.problemsAt(toPointer(['pages', name])).filter(({ severity }) => severity !== 'note').length;

  function save() {
    if (!svg) return;
    const copy = svg.cloneNode(true) as SVGSVGElement;
    // The colours of the tokens, written out: the file stands alone.
    const originals = [...svg.querySelectorAll<SVGElement>('*')];
    for (const [index, node] of [...copy.querySelectorAll<SVGElement>('*')].entries()) {
      const from = originals[index];
      if (!from) continue;
      const style = getComputedStyle(from);
      for (const property of ['fill', 'stroke', 'stroke-width', 'stroke-dasharray', 'font-family', 'font-size', 'font-weight'])
        node.setAttribute(property, style.getPropertyValue(property));
    }
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    download(`${draft.app}-map.svg`, new XMLSerializer().serializeToString(copy), 'image/svg+xml');
  }
</script>

<main>
  <div class="head">
    <h1>Map</h1>
    <label
      >Links that send <select
        value={parameter ?? ''}
        onchange={({ currentTarget }) => place.change({ parameter: currentTarget.value || undefined })}
        ><option value="">anything</option>{#each parameters as name (name)}<option value={name}>{name}</option>{/each}</select
      ></label
    >
    <Button small look="quiet" aria-label="Smaller" onclick={() => (zoom = scale / 1.25)}>−</Button>
    <Button small look="quiet" aria-label="Larger" onclick={() => (zoom = scale * 1.25)}>+</Button>
    <Button small onclick={save}>Download as SVG</Button>
    <span class="legend"
      ><span class="gated">gate</span> <span class="alone">nothing leads to it</span> <span class="wrong">has problems</span></span
    >
  </div>
  {#if map.pages.length === 0}
    <EmptyState title="Nothing to draw yet"><p>Add pages, and links between them.</p></EmptyState>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be scrolled by keys -->
    <div class="scroll" role="group" aria-label="The map; it scrolls" tabindex="0" bind:clientWidth={holderWidth}>
      <svg
        bind:this={svg}
        viewBox="0 0 {picture.width} {picture.height}"
        width={picture.width * scale}
        height={picture.height * scale}
        role="group"
        aria-label="Pages and the links between them"
      >
        <defs>
          <marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"
            ><path class="tip" d="M0 0 L8 4 L0 8 z" /></marker
          >
        </defs>
        {#each picture.links as link (link.from + link.to)}
          {@const middle = middleOf(link.points)}
          {@const label = lineLabel(link.sends)}
          {@const to = placeLink(draft.app, draft.definition as never, link.pointers[0] ?? '')}
          <g class="link" class:faint={!isShown(link.sends)}>
            <path d={pathThrough(link.points)} marker-end="url(#tip)" />
            {#if link.sends.length > 0}
              <a href={to.href} onclick={(event) => place.follow(event as never)}>
                <title>From {link.from} to {link.to}: {link.sends.join(', ')}</title>
                <rect class="room" x={middle.x - label.width / 2} y={middle.y - 7} width={label.width} height="14" />
                <text x={middle.x} y={middle.y + 4} text-anchor="middle">{label.text}</text>
              </a>
            {/if}
          </g>
        {/each}
        {#each picture.pages as page (page.name)}
          <a
            href={place.href('pages', { app: draft.app, page: page.name })}
            onclick={(event) => {
              event.preventDefault();
              place.open('pages', { app: draft.app, page: page.name });
            }}
          >
            <g class="page" class:gated={page.gate !== undefined} class:alone={page.unlinked} class:wrong={wrong(page.name) > 0}>
              <title>{page.address}{page.unlinked ? '; nothing leads to it' : ''}{wrong(page.name) > 0 ? '; it has problems' : ''}</title>
              <rect x={page.x} y={page.y} width={pageWidth} height={pageHeight} rx="5" />
              <text class="title" x={page.x + 9} y={page.y + 20}>{cutText(page.title, page.gate === undefined ? 22 : 14)}</text>
              <text class="address" x={page.x + 9} y={page.y + 38}>{cutText(page.address, 27)}</text>
              {#if page.gate}<text class="gate" x={page.x + pageWidth - 8} y={page.y + 13} text-anchor="end">{cutText(page.gate, 12)}</text
                >{/if}
            </g>
          </a>
        {/each}
      </svg>
    </div>
    {#if onEvery.length > 0}
      <p>
        On every page: {#each onEvery as link, index (link.to)}{index > 0 ? ', ' : ''}<a
            href={place.href('pages', { app: draft.app, page: link.to })}
            onclick={(event) => place.follow(event)}>{map.pages.find(({ name }) => name === link.to)?.title ?? link.to}</a
          >{/each}
      </p>
    {/if}
  {/if}
</main>

<style>
  main {
    padding: 0.8rem 1rem;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    height: 100%;
    gap: 0.5rem;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 1rem;
    font-size: 0.875rem;
  }
  h1 {
    font: 600 1.3rem var(--text);
  }
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
  }
  .legend {
    margin-inline-start: auto;
    display: flex;
    gap: 0.6rem;
    font-size: 0.8125rem;
  }
  .legend span {
    border: 1.5px solid var(--edge);
    border-radius: 3px;
    padding: 0 0.4rem;
  }
  .legend .gated {
    border-inline-start-width: 6px;
    border-color: var(--path);
  }
  .legend .alone {
    border-style: dashed;
  }
  .legend .wrong {
    border-color: var(--bad);
    color: var(--bad);
  }
  .scroll {
    overflow: auto;
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--paper);
  }
  .page rect {
    fill: var(--sheet);
    stroke: var(--edge);
    stroke-width: 1.5;
  }
  a:focus-visible .page rect,
  a:hover .page rect {
    stroke: var(--leaf);
    stroke-width: 3;
  }
  .page.gated rect {
    stroke: var(--path);
    stroke-width: 2.5;
  }
  .page.alone rect {
    stroke-dasharray: 5 4;
  }
  .page.wrong rect {
    stroke: var(--bad);
  }
  text {
    fill: var(--ink);
    font-family: var(--plain);
    font-size: 13px;
  }
  .title {
    font-weight: 600;
  }
  .address {
    font-family: var(--code);
    font-size: 10px;
    fill: var(--quiet);
  }
  .gate {
    font-size: 10px;
    fill: var(--path);
  }
  .link path {
    fill: none;
    stroke: var(--query);
    stroke-width: 1.3;
  }
  .tip {
    fill: var(--query);
    stroke: none;
  }
  .link text {
    font-size: 10.5px;
    fill: var(--query);
  }
  .room {
    fill: var(--paper);
  }
  .faint {
    opacity: 0.15;
  }
  p {
    margin: 0;
    font-size: 0.875rem;
  }
</style>
