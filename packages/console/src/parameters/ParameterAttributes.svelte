<script lang="ts">
  import { type ParameterDeclaration } from '@pallmist/app/address';
  import { attributesFor, changeParameterType, namesForType, parameterTypeNames, simpleTypeNames } from '@pallmist/app/editing';
  import Checks from '../controls/Checks.svelte';
  import ListBox from '../controls/ListBox.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import DataBox from '../controls/DataBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';
  import ParameterValueBox from './ParameterValueBox.svelte';
  import { sentences, typeSentences } from './sentences.ts';
  import Note from '../controls/Note.svelte';

  interface Props {
    draft: Draft;
    /** JSON Pointer of the declaration. */
    at: string;
    name: string;
    declaration: ParameterDeclaration;
    inPath: boolean;
    /** The other parameters of the page, which a change can reset. */
    others: readonly string[];
    /** Of the app, for every page: it may be remembered for the visit. */
    ofApp?: boolean;
  }
  const { draft, at, name, declaration, inPath, others, ofApp = false }: Props = $props();
  const definition = $derived(draft.definition);
  const has = $derived(attributesFor(declaration, inPath));
  const lists = $derived(definition ? namesForType(definition, declaration.type) : []);
  const ofLabel: Record<string, string> = { choice: 'Choices list', record: 'Collection', sort: 'Collection', range: 'Range of' };
  const collection = $derived(definition?.collections?.[declaration.of ?? '']);
  const counts = [
    ['minLength', 'Minimum length, in characters'],
    ['maxLength', 'Maximum length, in characters'],
    ['minItems', 'Fewest items'],
    ['maxItems', 'Most items'],
  ] as const;

  const problems = (attribute: string) => draft.problemsAt(`${at}/${attribute}`);
  function set(attribute: string, value: unknown) {
    draft.set(`${at}/${attribute}`, value, `Changed “${attribute}” of “${name}”`);
  }
  const number = (text: string) => (text.trim() === '' ? undefined : Number.isFinite(Number(text)) ? Number(text) : text);
</script>

{#if definition}
  <div class="fields">
    {#if ofApp}
      <ChoiceBox
        label="Reach"
        file="reach"
        value={declaration.reach}
        none="every link takes it along"
        options={[{ value: 'visit', label: 'remembered for the visit' }]}
        help={sentences.reach}
        problems={problems('reach')}
        disabled={!me.mayChange}
        onset={(value) => set('reach', value)}
      />
    {/if}
    <ChoiceBox
      label="Type"
      file="type"
      value={declaration.type}
      options={parameterTypeNames}
      help={typeSentences[declaration.type]}
      problems={problems('type')}
      disabled={!me.mayChange}
      onset={(type) =>
        type !== undefined && draft.edit(changeParameterType(definition, at, declaration, type), `“${name}” is a ${type} now`)}
    />
    {#if has.has('of')}
      <ChoiceBox
        label={ofLabel[declaration.type] ?? 'Of'}
        file="of"
        value={declaration.of}
        options={lists}
        problems={problems('of')}
        help={lists.length === 0 ? 'There is none yet. Make one under Data.' : undefined}
        disabled={!me.mayChange}
        onset={(value) => set('of', value)}
      />
    {/if}
    {#if has.has('by') && collection}
      <ChoiceBox
        label="Named in the address by"
        file="by"
        value={declaration.by}
        none="its key, {collection.keyField}"
        options={Object.entries(collection.fields).flatMap(([field, { unique }]) =>
          unique && field !== collection.keyField ? [field] : [],
        )}
        help={sentences.by}
        problems={problems('by')}
        disabled={!me.mayChange}
        onset={(value) => set('by', value)}
      />
    {/if}
    {#if has.has('fields') && collection}
      <Checks
        label="Fields to sort by"
        file="fields"
        options={Object.entries(collection.fields).map(([field, { label }]) => ({ value: field, label: label ?? field }))}
        chosen={declaration.fields ?? Object.keys(collection.fields)}
        disabled={!me.mayChange}
        onset={(fields) => set('fields', fields)}
      />
    {/if}
    {#if has.has('items')}
      <ChoiceBox
        label="Items"
        file="items"
        value={declaration.items?.type ?? 'text'}
        options={simpleTypeNames}
        problems={problems('items')}
        disabled={!me.mayChange}
        onset={(type) => {
          const [first] = namesForType(definition, type ?? 'text');
          set('items', first === undefined ? { type } : { type, of: first });
        }}
      />
      {#if namesForType(definition, declaration.items?.type ?? '').length > 0}
        <ChoiceBox
          label="Items of"
          value={declaration.items?.of}
          options={namesForType(definition, declaration.items?.type ?? '')}
          disabled={!me.mayChange}
          onset={(value) => set('items/of', value)}
        />
      {/if}
    {/if}
    {#if has.has('schema')}
      <DataBox
        label="Schema"
        file="schema"
        value={declaration.schema}
        help="JSON Schema of the value (draft 2020-12)."
        problems={problems('schema')}
        onset={(value) => set('schema', value)}
      />
    {/if}
    {#if has.has('required')}
      <CheckBox
        label="Required"
        checked={declaration.required === true}
        help={sentences.required}
        disabled={!me.mayChange}
        onset={(checked) => set('required', checked ? true : undefined)}
      />
    {:else}<Note>It is part of the path, so every address of the page has it.</Note>{/if}
    {#if has.has('default')}
      <ParameterValueBox
        label="Default"
        file="default"
        {draft}
        {declaration}
        value={declaration.default}
        none={declaration.type === 'boolean' ? 'none: absent is a third state, neither yes nor no' : 'none'}
        help={sentences.default}
        problems={problems('default')}
        onset={(value) => set('default', value)}
      />
      {#if declaration.default !== undefined || declaration.inNewLinks !== undefined}
        <ParameterValueBox
          label="In new links"
          file="inNewLinks"
          {draft}
          {declaration}
          value={declaration.inNewLinks}
          none="the default"
          help={sentences.inNewLinks}
          problems={problems('inNewLinks')}
          onset={(value) => set('inNewLinks', value)}
        />
      {/if}
    {/if}
    <ParameterValueBox
      label="Sample"
      file="sample"
      {draft}
      {declaration}
      value={declaration.sample}
      none="none"
      help={sentences.sample}
      problems={problems('sample')}
      onset={(value) => set('sample', value)}
    />
    <TextBox
      label="Label"
      file="label"
      value={declaration.label ?? ''}
      placeholder={name}
      help={sentences.label}
      disabled={!me.mayChange}
      onset={(value) => set('label', value === '' ? undefined : value)}
    />
    <TextBox
      label="Help"
      file="help"
      lines={2}
      value={declaration.help ?? ''}
      help={sentences.help}
      disabled={!me.mayChange}
      onset={(value) => set('help', value === '' ? undefined : value)}
    />
  </div>

  {#if has.has('min') || has.has('maxLength') || has.has('minItems')}
    <h3>Limits</h3>
    <div class="pairs">
      {#if has.has('min')}
        {#each ['min', 'max'] as const as limit (limit)}
          <TextBox
            label={limit === 'min' ? 'Least' : 'Most'}
            file={limit}
            when="done"
            value={declaration[limit] === undefined ? '' : String(declaration[limit])}
            problems={problems(limit)}
            disabled={!me.mayChange}
            onset={(text) =>
              set(limit, text === '' ? undefined : declaration.type.startsWith('date') || declaration.of === 'date' ? text : number(text))}
          />
        {/each}
      {/if}
      {#each counts.filter(([limit]) => has.has(limit)) as [limit, label] (limit)}
        <TextBox
          {label}
          file={limit}
          type="number"
          min={0}
          when="done"
          value={declaration[limit] === undefined ? '' : String(declaration[limit])}
          problems={problems(limit)}
          disabled={!me.mayChange}
          onset={(text) => set(limit, number(text))}
        />
      {/each}
    </div>
    {#if has.has('pattern')}
      <TextBox
        label="Pattern"
        file="pattern"
        code
        when="done"
        value={declaration.pattern ?? ''}
        placeholder={'QM-[0-9]{4}'}
        help={sentences.pattern}
        problems={problems('pattern')}
        disabled={!me.mayChange}
        onset={(text) => set('pattern', text === '' ? undefined : text)}
      />
    {/if}
    {#if has.has('unique')}
      <CheckBox
        label="No item twice"
        checked={declaration.unique === true}
        disabled={!me.mayChange}
        onset={(checked) => set('unique', checked ? true : undefined)}
      />
    {/if}
  {/if}

  <h3>How it behaves</h3>
  <div class="fields">
    {#if has.has('blank')}
      <ChoiceBox
        label="?{name}= means"
        file="blank"
        value={declaration.blank}
        none="the empty one"
        options={[{ value: 'absent', label: 'that it is absent' }]}
        help={sentences.blank}
        disabled={!me.mayChange}
        onset={(value) => set('blank', value)}
      />
    {/if}
    <ChoiceBox
      label="A wrong value"
      file="ifWrong"
      value={declaration.ifWrong}
      none={inPath || declaration.required ? 'shows an error page' : 'is left out, and the page says so'}
      options={[
        { value: 'default', label: 'is left out, and the page says so' },
        { value: 'refuse', label: 'shows an error page' },
      ]}
      help={sentences.ifWrong}
      problems={problems('ifWrong')}
      disabled={!me.mayChange}
      onset={(value) => set('ifWrong', value)}
    />
    <CheckBox
      label="Back undoes a change of it"
      checked={declaration.step !== false}
      help={sentences.step}
      disabled={!me.mayChange}
      onset={(checked) => set('step', checked ? undefined : false)}
    />
    {#if others.length > 0}
      <Checks
        label="A change of it resets"
        file="resets"
        help={sentences.resets}
        options={others.map((other) => ({ value: other, label: other }))}
        chosen={declaration.resets ?? []}
        disabled={!me.mayChange}
        onset={(names) => set('resets', names.length > 0 ? names : undefined)}
      />
    {/if}
    {#if has.has('once')}
      <CheckBox
        label="Acts once"
        checked={declaration.once === true}
        help={sentences.once}
        disabled={!me.mayChange}
        onset={(checked) => set('once', checked ? true : undefined)}
      />
    {/if}
    <CheckBox
      label="Sealed"
      checked={declaration.sealed !== undefined && declaration.sealed !== false}
      help={sentences.sealed}
      disabled={!me.mayChange}
      onset={(checked) => set('sealed', checked ? true : undefined)}
    />
    {#if declaration.sealed}
      <TextBox
        label="Valid for, in days"
        type="number"
        min={0}
        when="done"
        value={typeof declaration.sealed === 'object' ? String(declaration.sealed.days) : ''}
        placeholder="for ever"
        problems={problems('sealed')}
        disabled={!me.mayChange}
        onset={(text) => set('sealed', number(text) === undefined ? true : { days: number(text) })}
      />
    {/if}
    <CheckBox
      label="Left out of shared addresses"
      checked={declaration.share === false}
      help={sentences.share}
      disabled={!me.mayChange}
      onset={(checked) => set('share', checked ? false : undefined)}
    />
    <ListBox
      label="Former names"
      file="formerNames"
      code
      value={declaration.formerNames}
      help={sentences.formerNames}
      problems={problems('formerNames')}
      disabled={!me.mayChange}
      onset={(names) => set('formerNames', names)}
    />
    <DataBox
      label="Former values (JSON)"
      file="formerValues"
      value={declaration.formerValues}
      help={sentences.formerValues}
      problems={problems('formerValues')}
      onset={(value) => set('formerValues', value)}
    />
    <DataBox
      label="Values that are gone (JSON)"
      file="goneValues"
      value={declaration.goneValues}
      help={sentences.goneValues}
      problems={problems('goneValues')}
      onset={(value) => set('goneValues', value)}
    />
    <CheckBox
      label="Addresses promise what it means"
      checked={declaration.lasting !== false}
      help={sentences.lasting}
      disabled={!me.mayChange}
      onset={(checked) => set('lasting', checked ? undefined : false)}
    />
  </div>
{/if}

<style>
  h3 {
    font: 600 0.8125rem var(--plain);
    color: var(--quiet);
    margin: 0.9rem 0 0.3rem;
  }
  .fields {
    display: grid;
    gap: 0.6rem;
  }
  .pairs {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
  }
</style>
