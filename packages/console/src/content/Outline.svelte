<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import {
    describeComponent,
    innerContent,
    insertComponent,
    kindOf,
    moveComponent,
    removeComponent,
    stepComponent,
    valueAt,
    type Component,
  } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { partOf, pointerOf } from '../problems/place-link.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import AddComponent from './AddComponent.svelte';
  import { clipboard } from './clipboard.svelte.ts';

  const { draft, page, frame }: { draft: Draft; page: string; frame: PageInFrame } = $props();
  const at = $derived(toPointer(['pages', page]));
  const content = $derived(draft.definition?.pages[page]?.content ?? []);
  const selected = $derived(place.text('part'));
  let adding: { list: string; index: number | undefined } | undefined = $state();
  let dragged: string | undefined = $state();
  let tree: HTMLElement | undefined = $state();

  const problemsOf = (pointer: string) => draft.problemsAt(pointer).filter(({ severity }) => severity !== 'note').length;
  /** The one item that Tab reaches; arrows reach the others. */
  const reached = $derived(selected !== undefined && valueAt(draft.data, pointerOf(page, selected)) !== undefined ? selected : 'content/0');

  function focusSoon(pointer: string) {
    requestAnimationFrame(() => tree?.querySelector<HTMLElement>(`[data-at="${CSS.escape(partOf(pointer))}"]`)?.focus());
  }
  function select(pointer: string) {
    place.change({ part: partOf(pointer) });
  }
  /** Goes on to the first property of what is selected. */
  function focusProperties() {
    requestAnimationFrame(() => {
      document.querySelector<HTMLElement>('section[aria-label="Properties"] :is(input, select, textarea):not([disabled])')?.focus();
    });
  }
  function step(pointer: string, by: -1 | 1) {
    if (!draft.definition) return;
    const moved = stepComponent(draft.definition, pointer, by);
    if (!draft.edit(moved.patch, `Moved the ${describeComponent(valueAt(draft.data, pointer) as Component)}`)) return;
    select(moved.pointer);
    focusSoon(moved.pointer);
  }
  function remove(pointer: string) {
    const component = valueAt(draft.data, pointer) as Component | undefined;
    if (component === undefined) return;
    draft.edit(removeComponent(pointer), `Removed the ${describeComponent(component)}`);
    const rest =
      valueAt(draft.data, pointer) === undefined
        ? pointer.replace(/\/(\d+)$/, (_, index: string) => `/${Math.max(0, Number(index) - 1)}`)
        : pointer;
    place.change({ part: valueAt(draft.data, rest) === undefined ? undefined : partOf(rest) });
    focusSoon(rest);
  }
  function paste(after: string | undefined) {
    const component = clipboard.take();
    if (component === undefined || !draft.definition) return;
    const list = after === undefined ? `${at}/content` : after.replace(/\/\d+$/, '');
    const index = after === undefined ? undefined : Number(/\d+$/.exec(after)?.[0]) + 1;
    const patch = insertComponent(draft.definition, list, component, index);
    if (!draft.edit(patch, `Pasted a ${describeComponent(component)}`)) return;
    const pointer = patch[0]?.path ?? list;
    const pasted = pointer.endsWith('content') ? `${pointer}/0` : pointer;
    select(pasted);
    focusSoon(pasted);
  }
  function drop(list: string, index: number) {
    if (dragged === undefined) return;
    const { patch, pointer } = moveComponent(dragged, list, index);
    dragged = undefined;
    if (draft.edit(patch, 'Moved a component')) select(pointer);
  }

  function keyed(event: KeyboardEvent & { currentTarget: HTMLElement }, pointer: string) {
    const items = [...(tree?.querySelectorAll<HTMLElement>('[data-at]') ?? [])];
    const index = items.indexOf(event.currentTarget);
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key] as -1 | 1 | undefined;
    const component = valueAt(draft.data, pointer) as Component;
    if (by !== undefined) {
      event.preventDefault();
      if (event.altKey && me.mayChange) step(pointer, by);
      else items[index + by]?.focus();
    } else if (event.key === 'Home') items[0]?.focus();
    else if (event.key === 'End') items.at(-1)?.focus();
    else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      select(pointer);
      if (event.key === 'Enter') focusProperties();
    } else if (event.key === 'Delete' && me.mayChange) {
      event.preventDefault();
      remove(pointer);
    } else if ((event.ctrlKey || event.metaKey) && 'cxv'.includes(event.key)) {
      event.preventDefault();
      if (event.key === 'v') {
        if (me.mayChange) paste(pointer);
        return;
      }
      clipboard.copy(component);
      if (event.key === 'x' && me.mayChange) remove(pointer);
    }
  }
</script>

{#snippet list(components: readonly Component[], pointer: string, within: readonly string[])}
  <ul>
    {#each components as component, index (index)}
      {@const here = `${pointer}/${index}`}
      {@const inner = innerContent(component)}
      {@const wrong = problemsOf(here)}
      {@const of = String(component['of'])}
      {@const block = draft.definition?.blocks?.[of]}
      <li>
        <button
          type="button"
          data-at={partOf(here)}
          tabindex={partOf(here) === reached ? 0 : -1}
          aria-current={partOf(here) === selected ? 'true' : undefined}
          draggable={me.mayChange}
          ondragstart={(event) => {
            event.stopPropagation();
            dragged = here;
          }}
          ondragover={(event) => event.preventDefault()}
          ondrop={(event) => {
            event.preventDefault();
            drop(pointer, index);
          }}
          onmouseenter={() => frame.point(partOf(here))}
          onmouseleave={() => frame.point(selected)}
          onclick={() => select(here)}
          onkeydown={(event) => keyed(event, here)}
        >
          <span class="what">{describeComponent(component)}</span>
          {#if component.when !== undefined}<span class="mark">if …</span>{/if}
          {#if wrong > 0}<span class="wrong">{wrong}</span>{/if}
        </button>
        {#each inner as part (part.path.join('/'))}
          {#if part.path[0] === 'panes'}<span class="pane">{part.path[1]}</span>{/if}
          {@render list(part.content, here + toPointer(part.path), within)}
          {#if me.mayChange}
            <span class="add"
              ><Button
                small
                look="quiet"
                aria-label="Add inside {kindOf(component)?.label ?? component.show}{part.path[0] === 'panes' ? `, ${part.path[1]}` : ''}"
                onclick={() => (adding = { list: here + toPointer(part.path), index: undefined })}>Add inside</Button
              ></span
            >
          {/if}
        {/each}
        {#if component.show === 'block' && block !== undefined && !within.includes(of)}
          <div class="shared">{@render list(block.content, toPointer(['blocks', of, 'content']), [...within, of])}</div>
          {#if me.mayChange}
            <span class="add"
              ><Button
                small
                look="quiet"
                aria-label="Add inside the block {of}"
                onclick={() => (adding = { list: toPointer(['blocks', of, 'content']), index: undefined })}>Add inside the block</Button
              ></span
            >
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
{/snippet}

<section aria-label="What is on the page">
  <div class="head">
    <h2>On this page</h2>
    {#if me.mayChange}
      <Button small look="quiet" onclick={() => (adding = { list: `${at}/content`, index: undefined })}>Add a component</Button>
    {/if}
  </div>
  {#if content.length === 0}
    <p>Nothing is on the page yet. Add a heading, then a table of records.</p>
  {:else}
    <div class="tree" role="group" aria-label="Components" bind:this={tree}>{@render list(content, `${at}/content`, [])}</div>
  {/if}
  {#if me.mayChange && clipboard.take() !== undefined}
    <p class="paste"><Button small look="quiet" onclick={() => paste(undefined)}>Paste at the end</Button></p>
  {/if}
</section>

{#if adding}
  <AddComponent
    {draft}
    {page}
    list={adding.list}
    index={adding.index}
    onclose={() => (adding = undefined)}
    onadded={(pointer) => {
      adding = undefined;
      select(pointer);
      focusSoon(pointer);
    }}
  />
{/if}

<style>
  section {
    border-block-start: 1px solid var(--line);
    padding: 0.5rem 0 1rem;
    overflow: auto;
  }
  .head {
    display: flex;
    align-items: center;
    justify-content: space-between;
    padding: 0 0.6rem 0.3rem;
  }
  h2 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
  }
  p {
    margin: 0;
    padding: 0 0.6rem;
    font-size: 0.875rem;
    color: var(--quiet);
  }
  ul {
    list-style: none;
    margin: 0;
    padding-inline-start: 0.8rem;
  }
  .tree > ul {
    padding-inline-start: 0;
  }
  [data-at] {
    display: flex;
    width: 100%;
    background: none;
    border: 0;
    text-align: start;
    align-items: baseline;
    gap: 0.35rem;
    padding: 0.15rem 0.6rem;
    font-size: 0.875rem;
    border-inline-start: 3px solid transparent;
    cursor: pointer;
  }
  [data-at]:hover {
    background: var(--sunk);
  }
  [data-at][aria-current] {
    background: var(--query-soft);
    border-color: var(--query);
  }
  .what {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .mark {
    flex: none;
    color: var(--quiet);
    font-size: 0.75rem;
  }
  .wrong {
    margin-inline-start: auto;
    color: var(--bad);
    font-size: 0.75rem;
    border: 1px solid currentColor;
    border-radius: 0.6rem;
    padding: 0 0.35rem;
  }
  .pane {
    display: block;
    padding: 0.15rem 1.4rem 0;
    font: 0.75rem var(--code);
    color: var(--quiet);
  }
  .add {
    display: block;
    padding: 0.1rem 1.4rem 0.2rem;
  }
  .shared {
    border-inline-start: 2px solid var(--line);
    margin-inline-start: 0.8rem;
  }
  .paste {
    padding-block-start: 0.4rem;
  }
</style>
