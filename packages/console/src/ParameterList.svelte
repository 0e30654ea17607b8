<script lang="ts">
  import { parseTemplate, toPointer, type AppDefinition, type PatchOperation } from '@pallmist/app';
  import ParameterForm from './ParameterForm.svelte';
  import Parts from './Parts.svelte';
  import { place } from './place.svelte.ts';
  import ProblemList from './ProblemList.svelte';
  import type { DraftEditor } from './draft-editor.svelte.ts';

  const { editor, definition, page }: { editor: DraftEditor; definition: AppDefinition; page: string } = $props();

  const pageDefinition = $derived(definition.pages[page]);
  const parameters = $derived(Object.entries(pageDefinition?.parameters ?? {}));
  const inPath = $derived(
    new Set(
      parseTemplate(pageDefinition?.address ?? '/').template.segments.flatMap((segment) =>
        'parameter' in segment ? [segment.parameter] : [],
      ),
    ),
  );
  const open = $derived(place.text('parameter'));

  /** Adds a query parameter under a name that is free. */
  function add() {
    if (!pageDefinition) return;
    let name = 'new';
    for (let number = 2; Object.hasOwn(pageDefinition.parameters ?? {}, name); number++) name = `new${String(number)}`;
    const { address } = pageDefinition;
    const longer = address.includes('{?') ? address.replace(/\}$/, `,${name}}`) : `${address}{?${name}}`;
    const at = toPointer(['pages', page, 'parameters']);
    const declared: PatchOperation = pageDefinition.parameters
      ? { op: 'add', path: `${at}/${name}`, value: { type: 'text' } }
      : { op: 'add', path: at, value: { [name]: { type: 'text' } } };
    editor.edit([{ op: 'replace', path: toPointer(['pages', page, 'address']), value: longer }, declared]);
    place.change({ parameter: name });
  }
</script>

<section aria-label="Parameters of {page}">
  <h2>Parameters of {page}</h2>
  {#each parameters as [name, declaration] (name)}
    <details
      open={open === name}
      ontoggle={({ currentTarget }) => {
        if (currentTarget.open && open !== name) place.change({ parameter: name });
        else if (!currentTarget.open && open === name) place.change({ parameter: undefined });
      }}
    >
      <summary>
        <Parts parts={[{ text: name, kind: inPath.has(name) ? 'path' : 'query' }]} />
        <span class="type">{declaration.type}{declaration.of ? ` of ${declaration.of}` : ''}</span>
        {#if declaration.default !== undefined}<span class="type">= {String(declaration.default)}</span>{/if}
      </summary>
      {#if open === name}
        {#key editor.reverts}
          <ParameterForm
            {editor}
            {definition}
            {page}
            {name}
            {declaration}
            inPath={inPath.has(name)}
            onrenamed={(to) => place.change({ parameter: to })}
          />
        {/key}
      {/if}
    </details>
  {:else}
    <p>The page has no parameters.</p>
  {/each}
  <p><button onclick={add}>Add a query parameter</button></p>
  <ProblemList problems={editor.problemsOf(page)} onfix={(patch) => editor.edit(patch)} />
</section>

<style>
  h2 {
    font: 600 1rem var(--plain);
    margin: 0.2rem 0 0.5rem;
  }
  details {
    background: var(--paper);
    border: 1px solid var(--line);
    border-radius: var(--round);
    margin-block-end: 0.4rem;
  }
  details[open] {
    border-color: var(--leaf);
  }
  summary {
    padding: 0.4rem 0.6rem;
    cursor: pointer;
  }
  .type {
    color: var(--quiet);
    font-size: 0.85rem;
    margin-inline-start: 0.5rem;
  }
  button {
    background: none;
    border: 1px dashed var(--edge);
    border-radius: var(--round);
    padding: 0.3rem 0.8rem;
    cursor: pointer;
    width: 100%;
  }
</style>
