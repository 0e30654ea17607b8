<script lang="ts">
  import {
    parameterTypeNames,
    renameParameter,
    simpleTypeNames,
    toPointer,
    type AppDefinition,
    type ParameterDeclaration,
    type PatchOperation,
  } from '@pallmist/app';
  import { namePattern, rangeTypeNames } from '@pallmist/app/address';
  import type { DraftEditor } from './draft-editor.svelte.ts';

  interface Props {
    editor: DraftEditor;
    definition: AppDefinition;
    page: string;
    name: string;
    declaration: ParameterDeclaration;
    inPath: boolean;
    onrenamed: (name: string) => void;
  }
  const { editor, definition, page, name, declaration, inPath, onrenamed }: Props = $props();

  const pointer = $derived(toPointer(['pages', page, 'parameters', name]));
  const attributesOfSomeTypes = [
    'of',
    'items',
    'fields',
    'schema',
    'default',
    'sample',
    'min',
    'max',
    'minLength',
    'maxLength',
    'pattern',
    'blank',
    'minItems',
    'maxItems',
    'unique',
  ] as const;

  /** What `of` can name for a type; nothing where it has no meaning. */
  function namesFor(type: string): readonly string[] {
    if (type === 'choice') return Object.keys(definition.choices ?? {});
    if (type === 'record' || type === 'sort') return Object.keys(definition.collections ?? {});
    return type === 'range' ? rangeTypeNames : [];
  }
  const lists = $derived(namesFor(declaration.type));
  const ofLabel = $derived(
    { choice: 'Choices list', record: 'Collection', sort: 'Collection', range: 'Range of' }[declaration.type as string],
  );
  let refusedName: string | undefined = $state();

  /** Sets an attribute, or takes it out when it is empty. */
  function set(attribute: keyof ParameterDeclaration, value: unknown) {
    const path = `${pointer}/${attribute}`;
    if (value === '' || value === undefined || value === false) {
      if (declaration[attribute] !== undefined) editor.edit([{ op: 'remove', path }]);
    } else if (value !== declaration[attribute]) {
      editor.edit([{ op: declaration[attribute] === undefined ? 'add' : 'replace', path, value }]);
    }
  }

  /** What was typed for a default or a sample: a number, a truth value or JSON where the type has such, else its text. */
  function typed(text: string): unknown {
    if (['integer', 'number'].includes(declaration.type) && text.trim() !== '' && Number.isFinite(Number(text))) return Number(text);
    if (declaration.type === 'boolean' && (text === 'true' || text === 'false')) return text === 'true';
    if (['packed', 'list', 'range', 'sort'].includes(declaration.type) && /^\s*[[{]/.test(text)) {
      try {
        return JSON.parse(text) as unknown;
      } catch {
        return text;
      }
    }
    return text;
  }

  function setType(type: string) {
    const patch: PatchOperation[] = [{ op: 'replace', path: `${pointer}/type`, value: type }];
    // What only some types understand means nothing, or another thing, for another type.
    for (const attribute of attributesOfSomeTypes) {
      if (declaration[attribute] !== undefined) patch.push({ op: 'remove', path: `${pointer}/${attribute}` });
    }
    const first = namesFor(type)[0];
    if (first !== undefined) patch.push({ op: 'add', path: `${pointer}/of`, value: first });
    if (type === 'list') patch.push({ op: 'add', path: `${pointer}/items`, value: { type: 'text' } });
    editor.edit(patch);
  }

  function setItems(type: string) {
    const first = namesFor(type)[0];
    editor.edit([{ op: 'replace', path: `${pointer}/items`, value: first === undefined ? { type } : { type, of: first } }]);
  }

  function rename(to: string) {
    refusedName = undefined;
    if (to === name) return;
    if (!namePattern.test(to)) refusedName = 'A name has letters, digits, “_” and “-”, and begins with a letter.';
    else if (Object.hasOwn(definition.pages[page]?.parameters ?? {}, to)) refusedName = `The page has a parameter “${to}” already.`;
    else {
      editor.edit(renameParameter(definition, page, name, to));
      onrenamed(to);
    }
  }

  const shown = (value: unknown) =>
    value === undefined ? '' : typeof value === 'object' ? JSON.stringify(value) : String(value as string);
  const problems = $derived(
    editor.checked.problems.filter((problem) => problem.pointer === pointer || problem.pointer?.startsWith(`${pointer}/`)),
  );
  const problemOf = (attribute: string) => problems.find((problem) => problem.pointer === `${pointer}/${attribute}`);
</script>

<form onsubmit={(event) => event.preventDefault()}>
  <label>
    Name
    <input
      value={name}
      maxlength="60"
      spellcheck="false"
      aria-invalid={refusedName !== undefined}
      onchange={({ currentTarget }) => rename(currentTarget.value.trim())}
    />
  </label>
  {#if refusedName}<p class="bad" role="alert">{refusedName}</p>{/if}
  <label>
    Type
    <select value={declaration.type} onchange={({ currentTarget }) => setType(currentTarget.value)}>
      {#each parameterTypeNames as type (type)}<option value={type} selected={type === declaration.type}>{type}</option>{/each}
    </select>
  </label>
  {#if ofLabel !== undefined}
    <label>
      {ofLabel}
      <select value={declaration.of ?? ''} onchange={({ currentTarget }) => set('of', currentTarget.value)}>
        {#if declaration.of === undefined || !lists.includes(declaration.of)}<option value={declaration.of ?? ''}
            >{declaration.of ?? '—'}</option
          >{/if}
        {#each lists as list (list)}<option value={list} selected={list === declaration.of}>{list}</option>{/each}
      </select>
    </label>
  {/if}
  {#if declaration.type === 'list'}
    <label>
      Items
      <select value={declaration.items?.type ?? 'text'} onchange={({ currentTarget }) => setItems(currentTarget.value)}>
        {#each simpleTypeNames as type (type)}<option value={type} selected={type === declaration.items?.type}>{type}</option>{/each}
      </select>
    </label>
  {/if}
  {#if inPath}
    <p class="quiet">It stands in the path, so it is always there.</p>
  {:else}
    <label class="line"
      ><input
        type="checkbox"
        checked={declaration.required === true}
        onchange={({ currentTarget }) => set('required', currentTarget.checked)}
      /> Required</label
    >
    <label>
      Default
      <input
        value={shown(declaration.default)}
        placeholder="none"
        aria-invalid={problemOf('default') !== undefined}
        onchange={({ currentTarget }) => set('default', typed(currentTarget.value))}
      />
    </label>
  {/if}
  <label>
    Sample
    <input
      value={shown(declaration.sample)}
      placeholder="none"
      aria-invalid={problemOf('sample') !== undefined}
      onchange={({ currentTarget }) => set('sample', typed(currentTarget.value))}
    />
  </label>
  <label>
    Label
    <input
      value={declaration.label ?? ''}
      placeholder={name}
      maxlength="200"
      onchange={({ currentTarget }) => set('label', currentTarget.value)}
    />
  </label>
  <label>
    Help
    <textarea rows="2" maxlength="2000" value={declaration.help ?? ''} onchange={({ currentTarget }) => set('help', currentTarget.value)}
    ></textarea>
  </label>
  {#each problems as problem, index (index)}<p class={problem.severity === 'error' ? 'bad' : 'warn'}>
      {problem.message}
      {problem.hint}
    </p>{/each}
</form>

<style>
  form {
    display: grid;
    gap: 0.5rem;
    padding: 0.4rem 0.7rem 0.8rem;
  }
  label {
    display: grid;
    grid-template-columns: 5.5rem 1fr;
    align-items: center;
    gap: 0.5rem;
    font-size: 0.9rem;
  }
  .line {
    grid-template-columns: auto 1fr;
    margin-inline-start: 6rem;
  }
  input:not([type='checkbox']),
  select,
  textarea {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.25rem 0.45rem;
    width: 100%;
    min-width: 0;
  }
  textarea {
    resize: vertical;
  }
  [aria-invalid='true'] {
    border-color: var(--bad);
    box-shadow: 0 0 0 1px var(--bad);
  }
  p {
    margin: 0;
    font-size: 0.85rem;
  }
  .quiet {
    color: var(--quiet);
  }
  .bad {
    color: var(--bad);
  }
  .warn {
    color: var(--warn);
  }
</style>
