<script lang="ts">
  import {
    describeComponent,
    dissolveBlock,
    innerContent,
    kindOf,
    makeBlock,
    misfitsOf,
    pagesWithBlock,
    propertiesOf,
    removeComponent,
    unwrapComponent,
    valueAt,
    wrapComponent,
    type Component,
    type Property,
  } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import GuideLink from '../controls/GuideLink.svelte';
  import { componentGuide } from '../controls/guides.ts';
  import ProblemList from '../controls/ProblemList.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { partOf, placeLink } from '../problems/place-link.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import BlockProperties from './BlockProperties.svelte';
  import { clipboard } from './clipboard.svelte.ts';
  import ConditionEditor from './ConditionEditor.svelte';
  import PropertyEditor from './PropertyEditor.svelte';

  const { draft, page, pointer, frame }: { draft: Draft; page: string; pointer: string; frame: PageInFrame } = $props();
  const component = $derived(valueAt(draft.data, pointer) as Component);
  const kind = $derived(kindOf(component));
  const properties = $derived(propertiesOf(component.show));
  const misfits = $derived(draft.definition ? misfitsOf(draft.definition, page, pointer) : []);
  const problems = $derived(draft.problemsAt(pointer));
  const block = $derived(/^\/blocks\/([^/]+)\//.exec(pointer)?.[1]);
  const rows = $derived(typeof component['rows'] === 'string' ? component['rows'] : undefined);
  /** What it could be copied from is gone by a move: the place follows. */
  function remove() {
    if (draft.edit(removeComponent(pointer), `Removed the ${describeComponent(component)}`)) place.change({ part: undefined });
  }
  function wrap() {
    if (draft.definition && draft.edit(wrapComponent(draft.definition, pointer), `Put the ${describeComponent(component)} into a panel`))
      place.change({ part: `${partOf(pointer)}/content/0` });
  }
  function intoBlock() {
    if (!draft.definition) return;
    const { patch, name } = makeBlock(draft.definition, pointer);
    draft.edit(patch, `Made the block “${name}” of the ${describeComponent(component)}`);
  }
  function dissolve() {
    if (draft.definition && draft.edit(dissolveBlock(draft.definition, pointer), `Took the ${describeComponent(component)} apart`))
      place.change({ part: undefined });
  }
  function unwrap() {
    if (draft.definition) draft.edit(unwrapComponent(draft.definition, pointer), `Took the ${describeComponent(component)} apart`);
  }
</script>

<h2>
  {kind?.label ?? component.show} <code>{component.show}</code>
  <GuideLink to={componentGuide(component)} about={kind?.label ?? component.show} />
</h2>
{#if kind}<p class="sentence">{kind.sentence}</p>{/if}
{#if block !== undefined && draft.definition}
  {@const pages = pagesWithBlock(draft.definition, block)}
  <p class="sentence">
    It is part of the block “{block}”. A change shows on {pages.length === 1 ? 'the page' : `${pages.length} pages:`}
    {pages.join(', ')}.
  </p>
{/if}

{#if misfits.length > 0}
  <div class="misfits" role="group" aria-label="What does not fit this page">
    {#each misfits as misfit (misfit.pointer)}
      <p>
        This page has no {misfit.what === 'rows' ? 'rows' : 'parameter'} “{misfit.named}”.
        {#each misfit.fitting as name (name)}
          <Button small onclick={() => draft.set(misfit.pointer, name, `Bound to “${name}”`)}>Use {name}</Button>
        {:else}Declare one first.{/each}
      </p>
    {/each}
  </div>
{/if}

{#snippet edit(property: Property, at: string)}
  <PropertyEditor {draft} {page} {frame} {property} pointer={at} {rows} {component} {edit} />
{/snippet}

<div class="fields">
  {#if component.show === 'block'}
    <BlockProperties {draft} {page} {frame} {component} {pointer} />
  {:else}
    {#each properties as property (property.key)}
      {@render edit(property, `${pointer}/${property.key}`)}
    {/each}
  {/if}
  {#if properties.length === 0}
    <TextBox label="Kind" value={component.show} disabled onset={() => undefined} />
  {/if}
  <ConditionEditor
    {draft}
    {page}
    {frame}
    label="Shown only while"
    pointer="{pointer}/when"
    value={component.when}
    onset={(when) => draft.set(`${pointer}/when`, when, 'Changed when it is shown')}
  />
</div>

{#if problems.length > 0 && draft.definition}
  <h3>Problems</h3>
  <ProblemList
    {problems}
    placeOf={(problem) => placeLink(draft.app, draft.definition as never, problem.pointer ?? pointer)}
    onfix={(patch, problem) => draft.edit(patch, `Fixed: ${problem.message}`)}
  />
{/if}
{#if me.mayChange}
  <div class="actions">
    <Button small onclick={() => clipboard.copy(component)}>Copy</Button>
    <Button small onclick={wrap}>Put into a panel</Button>
    {#if component.show === 'block'}
      <Button small onclick={dissolve}>Take apart</Button>
    {:else if !pointer.startsWith('/blocks/')}
      <Button small onclick={intoBlock}>Make a block of it</Button>
    {/if}
    {#if innerContent(component).some(({ content }) => content.length > 0)}<Button small onclick={unwrap}>Take apart</Button>{/if}
    <Button small look="danger" onclick={remove}>Remove</Button>
  </div>
{/if}

<style>
  h2 {
    font: 600 1.05rem var(--text);
  }
  h2 code {
    color: var(--quiet);
    font-size: 0.75rem;
    font-weight: 400;
  }
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.3rem;
  }
  .sentence {
    margin: 0 0 0.6rem;
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  .misfits {
    background: var(--warn-soft);
    border-inline-start: 0.25rem solid var(--warn);
    padding: 0.3rem 0.6rem;
    margin-block-end: 0.6rem;
    font-size: 0.875rem;
  }
  .misfits p {
    margin: 0.2rem 0;
  }
  .fields {
    display: grid;
    gap: 0.7rem;
  }
  .actions {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
    margin-block-start: 1rem;
  }
</style>
