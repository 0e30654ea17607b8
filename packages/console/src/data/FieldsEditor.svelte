<script lang="ts">
  import { toPointer } from '@pallmist/app/address';
  import {
    addField,
    changeKeyField,
    describePlace,
    namesForType,
    renameCollection,
    renameField,
    usesOfCollection,
    usesOfField,
    type FieldDefinition,
  } from '@pallmist/app/editing';
  import ListBox from '../controls/ListBox.svelte';
  import AddForm from '../controls/AddForm.svelte';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import { handleListKeys } from '../controls/list-keys.ts';
  import Modal from '../controls/Modal.svelte';
  import ProblemList from '../controls/ProblemList.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { placeLink } from '../problems/place-link.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';

  const { draft, collection }: { draft: Draft; collection: string } = $props();
  const definition = $derived(draft.definition);
  const declared = $derived(definition?.collections?.[collection]);
  const at = $derived(toPointer(['collections', collection]));
  const fields = $derived(Object.entries(declared?.fields ?? {}));
  const types = ['text', 'integer', 'number', 'boolean', 'date', 'choice', 'record', 'file'] as const;
  const uses = $derived(definition ? usesOfCollection(definition, collection) : []);
  let open: string | undefined = $state();
  let refused: string | undefined = $state();
  let removing: { what: string; pointer: string; uses: string[] } | undefined = $state();

  const below = (field: string) => at + toPointer(['fields', field]);
  const flags = [
    ['required', 'Required'],
    ['unique', 'No two records have the same'],
    ['sensitive', 'Never stands readable in an address'],
  ] as const;
  const limited: readonly string[] = ['integer', 'number', 'date'];
  const computable: readonly string[] = ['text', 'integer', 'number', 'boolean', 'date'];
  const computedHelp = (field: string) => {
    const names = fields.filter(([name, { computed }]) => name !== field && computed === undefined).map(([name]) => `row.${name}`);
    return `An expression of other fields, such as ${names.slice(0, 3).join(', ')}. Visitors see a change after you publish.`;
  };
  const validName = (name: string) => /^[A-Za-z][A-Za-z0-9_-]{0,59}$/.test(name);

  function add(label: string) {
    if (!definition) return false;
    const made = addField(definition, collection, label, { type: 'text' });
    const taken = draft.edit(made.patch, `Added the field “${made.name}”`);
    if (taken) open = made.name;
    return taken;
  }
  function rename(from: string, to: string) {
    refused = undefined;
    if (!definition || from === to) return;
    if (!validName(to)) refused = 'A name has letters, digits, “_” and “-”, and begins with a letter.';
    else if (declared?.fields[to]) refused = `There is a field “${to}” already.`;
    else if (draft.edit(renameField(definition, collection, from, to), `Renamed the field “${from}” to “${to}”`)) open = to;
  }
  function renameWhole(to: string) {
    refused = undefined;
    if (!definition || to === collection) return;
    if (!validName(to)) refused = 'A name has letters, digits, “_” and “-”, and begins with a letter.';
    else if (definition.collections?.[to]) refused = `There is a collection “${to}” already.`;
    else if (draft.edit(renameCollection(definition, collection, to), `Renamed the collection “${collection}” to “${to}”`))
      place.change({ collection: to, part: 'fields' });
  }
  function setType(field: string, type: string) {
    if (!definition) return;
    const [of] = namesForType(definition, type);
    const before = declared?.fields[field];
    const kept: Partial<FieldDefinition> = {};
    for (const key of ['label', 'required', 'help', 'sensitive', 'formerNames'] as const)
      if (before?.[key] !== undefined) Object.assign(kept, { [key]: before[key] });
    draft.set(below(field), { type, ...(of === undefined ? {} : { of }), ...kept }, `“${field}” is a ${type} now`);
  }
  function move(field: string, step: -1 | 1) {
    const names = fields.map(([name]) => name);
    const to = names.indexOf(field) + step;
    if (to < 0 || to >= names.length) return;
    const before = names[step === 1 ? to + 1 : to];
    draft.edit(
      [{ op: 'move', from: below(field), path: below(field), ...(before === undefined ? {} : { before }) }],
      `Moved the field “${field}”`,
    );
  }
  function askRemove(field: string) {
    const found = definition ? usesOfField(definition, collection, field) : [];
    const words = found.map(({ pointer }) => describePlace(definition ?? { pages: {} }, pointer).words);
    removing = { what: `the field “${field}”`, pointer: below(field), uses: [...new Set(words)] };
  }
</script>

{#if declared && definition}
  <div class="whole">
    <TextBox
      label="Name"
      value={collection}
      code
      when="done"
      help="Old names are kept, so its records stay."
      {refused}
      disabled={!me.mayChange}
      onset={(name) => renameWhole(name.trim())}
    />
    <ChoiceBox
      label="Key"
      file="keyField"
      value={declared.keyField}
      options={fields.map(([name]) => name)}
      help="Identifies a record in an address."
      problems={draft.problemsAt(`${at}/keyField`)}
      disabled={!me.mayChange}
      onset={(value) => {
        if (definition && value !== undefined) draft.edit(changeKeyField(definition, collection, value), 'Changed the key');
      }}
    />
    <ListBox
      label="Former keys"
      file="formerKeys"
      code
      value={declared.formerKeys}
      help="Unique fields that named its records in addresses before. Such addresses lead to today’s."
      problems={draft.problemsAt(`${at}/formerKeys`)}
      disabled={!me.mayChange}
      onset={(names) => draft.set(`${at}/formerKeys`, names, 'Changed the former keys')}
    />
    <ChoiceBox
      label="Title"
      file="titleField"
      value={declared.titleField}
      none="the key"
      options={fields.map(([name]) => name)}
      help="The name of a record, for people."
      problems={draft.problemsAt(`${at}/titleField`)}
      disabled={!me.mayChange}
      onset={(value) => draft.set(`${at}/titleField`, value, 'Changed the title field')}
    />
  </div>
  <ul data-list>
    {#each fields as [name, field] (name)}
      <li>
        <div class="line">
          <button
            type="button"
            data-list-item
            aria-expanded={open === name}
            onclick={() => (open = open === name ? undefined : name)}
            onkeydown={(event) =>
              handleListKeys(event, me.mayChange ? { move: (step) => move(name, step), remove: () => askRemove(name) } : {})}
          >
            <strong>{field.label ?? name}</strong> <code>{name}</code>
            <span
              >{field.type}{field.of ? ` of ${field.of}` : ''}{field.computed ? ', computed' : ''}{field.required
                ? ', required'
                : ''}{field.unique ? ', unique' : ''}</span
            >
          </button>
        </div>
        {#if open === name}
          <div class="inner">
            <TextBox label="Name" value={name} code when="done" disabled={!me.mayChange} onset={(text) => rename(name, text.trim())} />
            <TextBox
              label="Label"
              file="label"
              value={field.label ?? ''}
              placeholder={name}
              disabled={!me.mayChange}
              onset={(text) => draft.set(`${below(name)}/label`, text === '' ? undefined : text, `Changed the label of “${name}”`)}
            />
            <ChoiceBox
              label="Type"
              file="type"
              value={field.type}
              options={types}
              problems={draft.problemsAt(`${below(name)}/type`)}
              disabled={!me.mayChange}
              onset={(type) => type !== undefined && setType(name, type)}
            />
            {#if field.type === 'choice' || field.type === 'record'}
              <ChoiceBox
                label={field.type === 'choice' ? 'Choices list' : 'Collection'}
                file="of"
                value={field.of}
                options={namesForType(definition, field.type)}
                problems={draft.problemsAt(`${below(name)}/of`)}
                disabled={!me.mayChange}
                onset={(value) => draft.set(`${below(name)}/of`, value, `Changed what “${name}” is of`)}
              />
            {/if}
            {#if computable.includes(field.type)}
              <TextBox
                label="Computed as"
                file="computed"
                code
                when="done"
                placeholder="row.height * row.width"
                value={field.computed ?? ''}
                help={computedHelp(name)}
                problems={draft.problemsAt(`${below(name)}/computed`)}
                disabled={!me.mayChange}
                onset={(text) =>
                  draft.set(`${below(name)}/computed`, text.trim() === '' ? undefined : text.trim(), `Changed how “${name}” is computed`)}
              />
            {/if}
            {#each flags.filter(([key]) => key === 'sensitive' || !field.computed) as [key, words] (key)}
              <CheckBox
                label={words}
                checked={field[key] === true}
                disabled={!me.mayChange}
                onset={(checked) => draft.set(`${below(name)}/${key}`, checked ? true : undefined, `Changed “${key}” of “${name}”`)}
              />
            {/each}
            {#if field.type === 'text' && !field.computed}
              <TextBox
                label="Pattern"
                file="pattern"
                code
                when="done"
                value={field.pattern ?? ''}
                problems={draft.problemsAt(`${below(name)}/pattern`)}
                disabled={!me.mayChange}
                onset={(text) => draft.set(`${below(name)}/pattern`, text === '' ? undefined : text, `Changed the pattern of “${name}”`)}
              />
              <TextBox
                label="Maximum length, in characters"
                file="maxLength"
                type="number"
                when="done"
                value={field.maxLength === undefined ? '' : String(field.maxLength)}
                problems={draft.problemsAt(`${below(name)}/maxLength`)}
                disabled={!me.mayChange}
                onset={(text) =>
                  draft.set(`${below(name)}/maxLength`, text === '' ? undefined : Number(text), `Changed the limit of “${name}”`)}
              />
              <TextBox
                label="Counts by itself as"
                file="serial"
                code
                when="done"
                placeholder="T-0000"
                value={field.serial ?? ''}
                help="A beginning and as many zeros as the number has digits."
                problems={draft.problemsAt(`${below(name)}/serial`)}
                disabled={!me.mayChange}
                onset={(text) => draft.set(`${below(name)}/serial`, text === '' ? undefined : text, `Changed how “${name}” counts`)}
              />
            {/if}
            {#if field.type === 'file'}
              <ListBox
                label="Media types"
                file="accept"
                code
                placeholder="any"
                value={field.accept}
                help="Separated by commas: image/png, image/*"
                problems={draft.problemsAt(`${below(name)}/accept`)}
                disabled={!me.mayChange}
                onset={(types) => draft.set(`${below(name)}/accept`, types, `Changed which files “${name}” takes`)}
              />
              <TextBox
                label="Maximum file size, in kilobytes"
                file="maxKilobytes"
                type="number"
                when="done"
                placeholder="5000"
                value={field.maxKilobytes === undefined ? '' : String(field.maxKilobytes)}
                problems={draft.problemsAt(`${below(name)}/maxKilobytes`)}
                disabled={!me.mayChange}
                onset={(text) =>
                  draft.set(`${below(name)}/maxKilobytes`, text === '' ? undefined : Number(text), `Changed the largest file of “${name}”`)}
              />
            {/if}
            {#if limited.includes(field.type) && !field.computed}
              {#each ['min', 'max'] as const as limit (limit)}
                <TextBox
                  label={limit === 'min' ? 'Least' : 'Most'}
                  file={limit}
                  when="done"
                  value={field[limit] === undefined ? '' : String(field[limit])}
                  problems={draft.problemsAt(`${below(name)}/${limit}`)}
                  disabled={!me.mayChange}
                  onset={(text) =>
                    draft.set(
                      `${below(name)}/${limit}`,
                      text === '' ? undefined : field.type === 'date' ? text : Number(text),
                      `Changed a limit of “${name}”`,
                    )}
                />
              {/each}
            {/if}
            <TextBox
              label="Help"
              file="help"
              value={field.help ?? ''}
              help="A hint for people who fill in the form."
              disabled={!me.mayChange}
              onset={(text) => draft.set(`${below(name)}/help`, text === '' ? undefined : text, `Changed the help of “${name}”`)}
            />
            {#if field.formerNames?.length}<p>Was named {field.formerNames.join(', ')}.</p>{/if}
            {#if me.mayChange}<div><Button small look="danger" onclick={() => askRemove(name)}>Remove the field</Button></div>{/if}
          </div>
        {/if}
      </li>
    {/each}
  </ul>
  {#if me.mayChange}
    <AddForm label="Label of a new field" placeholder="Label of a new field" button="Add a field" onadd={add} />
  {/if}
  {#if draft.problemsAt(at).length > 0}
    <ProblemList
      problems={draft.problemsAt(at)}
      placeOf={(problem) => placeLink(draft.app, definition, problem.pointer ?? at)}
      onfix={(patch, problem) => draft.edit(patch, `Fixed: ${problem.message}`)}
    />
  {/if}
  {#if me.mayChange}
    <p class="remove">
      <Button
        small
        look="danger"
        onclick={() =>
          (removing = {
            what: `the collection “${collection}”`,
            pointer: at,
            uses: uses.map(({ pointer }) => describePlace(definition, pointer).words),
          })}>Remove the collection</Button
      >
    </p>
  {/if}
{/if}

{#if removing}
  {@const asked = removing}
  <Modal title="Remove {asked.what}" onclose={() => (removing = undefined)}>
    {#if asked.uses.length > 0}
      <p>These use it. The check lists what no longer fits:</p>
      <ul class="uses">
        {#each asked.uses as words (words)}<li>{words}</li>{/each}
      </ul>
    {:else}<p>Nothing uses it.</p>{/if}
    <p>Its records stay in the database until you publish, and undo brings it back.</p>
    {#snippet actions()}
      <Button onclick={() => (removing = undefined)}>Keep it</Button>
      <Button
        look="danger"
        onclick={() => {
          draft.set(asked.pointer, undefined, `Removed ${asked.what}`);
          removing = undefined;
        }}>Remove</Button
      >
    {/snippet}
  </Modal>
{/if}

<style>
  .whole {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(12rem, 1fr));
    gap: 0.8rem;
    align-items: start;
    margin-block-end: 0.8rem;
    max-width: 50rem;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    max-width: 50rem;
    border-block-start: 1px solid var(--line);
  }
  li {
    border-block-end: 1px solid var(--line);
  }
  .line button {
    width: 100%;
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
    text-align: start;
    background: none;
    border: 0;
    padding: 0.3rem 0.4rem;
    cursor: pointer;
  }
  .line button:hover {
    background: var(--sunk);
  }
  .line span,
  code {
    color: var(--quiet);
    font-size: 0.8125rem;
  }
  .line span {
    margin-inline-start: auto;
  }
  .inner {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
    gap: 0.6rem 1rem;
    padding: 0.4rem 0.4rem 0.9rem;
    align-items: start;
  }
  p {
    margin: 0.3rem 0;
    font-size: 0.875rem;
  }
  .uses {
    list-style: disc;
    padding-inline-start: 1.2rem;
    border: 0;
  }
  .uses li {
    border: 0;
  }
  .remove {
    margin-block-start: 1.2rem;
  }
</style>
