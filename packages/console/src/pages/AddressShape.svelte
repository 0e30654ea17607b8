<script lang="ts">
  import { parseTemplate } from '@pallmist/app/address';
  import {
    addParameter,
    linksTo,
    movePiece,
    piecesOf,
    removeParameter,
    reshapeAddress,
    segmentProblem,
    slugOf,
    switchPlace,
    templateOf,
    type AddressPiece,
  } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import { handleListKeys } from '../controls/list-keys.ts';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import Failure from '../controls/Failure.svelte';

  const { draft, page }: { draft: Draft; page: string } = $props();
  const definition = $derived(draft.definition);
  const address = $derived(definition?.pages[page]?.address ?? '/');
  const pieces = $derived(parseTemplate(address).problems.length > 0 ? undefined : piecesOf(address));
  const pathLength = $derived(pieces?.filter(({ kind }) => kind !== 'query').length ?? 0);
  const published = $derived(draft.publishedEdition?.pages[page] !== undefined);
  const selected = $derived(place.text('parameter'));
  /** Whether old addresses keep working; asked only where people may have them. */
  let keepOld = $state(true);
  let editing: number | undefined = $state();
  let adding: 'segment' | undefined = $state();
  let refused: string | undefined = $state();
  let dragged: number | undefined = $state();
  const clash = $derived(
    draft
      .problemsAt(`/pages/${page}/address`)
      .concat(
        draft
          .problemsAt(`/pages/${page}`)
          .filter(({ code, pointer }) => /address|template|path/.test(code) && !pointer?.endsWith('/address')),
      ),
  );

  function reshape(next: readonly AddressPiece[], what: string) {
    refused = undefined;
    if (definition) draft.edit(reshapeAddress(definition, page, next, keepOld && published), what);
  }
  function move(index: number, step: -1 | 1) {
    if (pieces) reshape(movePiece(pieces, index, step), 'Moved a piece of the address');
  }
  function remove(index: number) {
    const piece = pieces?.[index];
    if (!pieces || !definition || piece === undefined) return;
    if (piece.kind === 'fixed')
      reshape(
        pieces.filter((_, at) => at !== index),
        'Took a segment out of the address',
      );
    else draft.edit(removeParameter(definition, page, piece.name), `Removed the parameter “${piece.name}”`);
  }
  function setSegment(index: number | undefined, text: string) {
    editing = undefined;
    adding = undefined;
    if (!pieces || text === '') return;
    refused = segmentProblem(text);
    if (refused !== undefined) return;
    const piece: AddressPiece = { kind: 'fixed', text };
    const at = index ?? pathLength;
    reshape([...pieces.slice(0, at), piece, ...pieces.slice(index === undefined ? at : at + 1)], 'Changed the address');
  }
  function drop(to: number) {
    if (!pieces || dragged === undefined || dragged === to) return;
    let next = [...pieces];
    let at = dragged;
    dragged = undefined;
    for (let steps = 0; at !== to && steps < 40; steps++) {
      const step = at < to ? 1 : -1;
      const moved = movePiece(next, at, step);
      if (templateOf(moved) === templateOf(next)) break;
      const stays = moved.length === next.length && moved[at] !== undefined && next[at]?.kind !== moved[at]?.kind;
      next = moved;
      if (!stays) at += step;
      else if (at === to - step) break;
    }
    reshape(next, 'Moved a piece of the address');
  }
  function addQuery() {
    if (!definition) return;
    const made = addParameter(definition, page, 'new', { type: 'text', blank: 'absent' });
    if (draft.edit(made.patch, 'Added a parameter')) place.change({ parameter: made.name });
  }
  const focused = (node: HTMLInputElement) => {
    node.focus();
    node.select();
  };
</script>

<section aria-label="Address of the page">
  {#if pieces}
    <div class="shape" data-list="row" role="group" aria-label="Pieces of the address">
      <span class="mount">{definition?.mount === '/' ? '' : definition?.mount}</span>
      {#each pieces as piece, index (`${piece.kind}-${piece.kind === 'fixed' ? `${index}${piece.text}` : piece.name}`)}
        <span class="joint" aria-hidden="true">{piece.kind !== 'query' ? '/' : index === pathLength ? '?' : '&'}</span>
        {#if editing === index && piece.kind === 'fixed'}
          <input
            class="segment"
            aria-label="Text of the segment"
            value={piece.text}
            use:focused
            onchange={({ currentTarget }) => setSegment(index, currentTarget.value.trim())}
            onblur={() => (editing = undefined)}
            onkeydown={({ key }) => key === 'Escape' && (editing = undefined)}
          />
        {:else}
          <button
            type="button"
            data-list-item
            class={piece.kind}
            class:optional={piece.kind === 'path' && piece.optional}
            aria-pressed={piece.kind !== 'fixed' && piece.name === selected}
            aria-label={piece.kind === 'fixed'
              ? `segment ${piece.text}`
              : `${piece.kind} parameter ${piece.name}${piece.kind === 'path' && piece.optional ? ', optional' : ''}`}
            disabled={!me.mayChange && piece.kind === 'fixed'}
            draggable={me.mayChange}
            ondragstart={() => (dragged = index)}
            ondragover={(event) => event.preventDefault()}
            ondrop={(event) => {
              event.preventDefault();
              drop(index);
            }}
            onclick={() => (piece.kind === 'fixed' ? (editing = index) : place.change({ parameter: piece.name }))}
            onkeydown={(event) =>
              handleListKeys(event, me.mayChange ? { move: (step) => move(index, step), remove: () => remove(index) } : {})}
            >{piece.kind === 'fixed' ? piece.text : piece.name}{piece.kind === 'query' && piece.repeated ? ' (repeated)' : ''}</button
          >
        {/if}
      {/each}
      {#if pieces.length === 0}<span class="joint" aria-hidden="true">/</span>{/if}
      {#if adding === 'segment'}
        <input
          class="segment"
          aria-label="Text of the new segment"
          placeholder={slugOf('segment')}
          use:focused
          onchange={({ currentTarget }) => setSegment(undefined, currentTarget.value.trim())}
          onblur={() => (adding = undefined)}
          onkeydown={({ key }) => key === 'Escape' && (adding = undefined)}
        />
      {/if}
      {#if me.mayChange}
        <span class="more">
          <Button small look="quiet" onclick={() => (adding = 'segment')}>Add a segment</Button>
          <Button small look="quiet" onclick={addQuery}>Add a parameter</Button>
        </span>
      {/if}
    </div>
    {#if selected !== undefined && me.mayChange}
      {@const piece = pieces.find((one) => one.kind !== 'fixed' && one.name === selected)}
      {#if piece && piece.kind !== 'fixed'}
        <div class="piece">
          <strong>{selected}</strong>
          <Button small look="quiet" onclick={() => reshape(switchPlace(pieces, selected), `Moved “${selected}” in the address`)}
            >{piece.kind === 'path' ? 'Put it into the query' : 'Put it into the path'}</Button
          >
          {#if piece.kind === 'path' && pieces[pathLength - 1] === piece}
            <label
              ><input
                type="checkbox"
                checked={piece.optional}
                onchange={({ currentTarget }) =>
                  reshape(
                    pieces.map((one) => (one === piece ? { ...piece, optional: currentTarget.checked } : one)),
                    `Made “${selected}” ${currentTarget.checked ? 'optional' : 'required'}`,
                  )}
              /> optional</label
            >
          {/if}
          {#if piece.kind === 'query' && definition?.pages[page]?.parameters?.[selected]?.type === 'list'}
            <label
              ><input
                type="checkbox"
                checked={piece.repeated}
                onchange={({ currentTarget }) =>
                  reshape(
                    pieces.map((one) => (one === piece ? { ...piece, repeated: currentTarget.checked } : one)),
                    `Changed how “${selected}” stands in the address`,
                  )}
              /> a=1&amp;a=2 instead of a=1,2</label
            >
          {/if}
          {#if published && definition && linksTo(definition, page) >= 0}
            <label><input type="checkbox" bind:checked={keepOld} /> keep old addresses working</label>
          {/if}
        </div>
      {/if}
    {/if}
  {:else}
    <p class="bad">The address <code>{address}</code> is not an address template. Correct it in the page’s properties.</p>
  {/if}
  <Failure text={refused} />
  {#each clash.slice(0, 2) as problem (problem.code + problem.message)}<p class="bad">{problem.message} {problem.hint}</p>{/each}
</section>

<style>
  section {
    background: var(--sheet);
    border: 1px solid var(--line);
    border-radius: var(--round);
    padding: 0.35rem 0.6rem;
    min-width: 0;
  }
  .shape {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.15rem 0.2rem;
    font: 0.9375rem/1.6 var(--code);
  }
  .mount,
  .joint {
    color: var(--quiet);
  }
  .shape button[data-list-item] {
    border: 1px solid transparent;
    border-radius: 3px;
    background: none;
    padding: 0 0.25rem;
    cursor: grab;
    font: inherit;
  }
  .shape button.path {
    color: var(--path);
    background: var(--path-soft);
    border-color: var(--path);
  }
  .shape button.optional {
    border-style: dashed;
  }
  .shape button.query {
    color: var(--query);
    background: var(--query-soft);
    border-block-end: 2px dotted var(--query);
  }
  .shape button[aria-pressed='true'] {
    outline: 2px solid var(--ink);
  }
  .segment {
    width: 9rem;
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--paper);
    padding: 0 0.3rem;
  }
  .more {
    margin-inline-start: auto;
    display: flex;
    gap: 0.3rem;
  }
  .piece {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.3rem 0.9rem;
    font-size: 0.8125rem;
    padding-block: 0.25rem;
  }
  p {
    margin: 0.1rem 0 0;
    font-size: 0.8125rem;
  }
  .bad {
    color: var(--bad);
  }
</style>
