<script lang="ts">
  import { fromPointer } from '@pallmist/app/address';
  import { bindPanes, kindOf, valueAt, type Component, type LinkDefinition, type Property, type PropertyKind } from '@pallmist/app/editing';
  import type { Snippet } from 'svelte';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import CheckBox from '../controls/CheckBox.svelte';
  import ChoiceBox from '../controls/ChoiceBox.svelte';
  import DataBox from '../controls/DataBox.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import LinkEditor from '../links/LinkEditor.svelte';
  import { me } from '../service/me.svelte.ts';
  import type { PageInFrame } from '../try/page-in-frame.svelte.ts';
  import BindBox from './BindBox.svelte';
  import ConditionEditor from './ConditionEditor.svelte';
  import FieldBox from './FieldBox.svelte';
  import ListEditor from './ListEditor.svelte';
  import MapEditor from './MapEditor.svelte';
  import ValueBox from './ValueBox.svelte';
  import { labelOf } from './labels.ts';

  interface Props {
    draft: Draft;
    page: string;
    frame: PageInFrame;
    property: Property;
    /** JSON Pointer of the property. */
    pointer: string;
    /** The read in whose rows its texts stand. */
    rows: string | undefined;
    component: Component;
    /** Edits a property within this one. */
    edit: Snippet<[property: Property, pointer: string]>;
  }
  const { draft, page, frame, property, pointer, rows, component, edit }: Props = $props();
  const value = $derived(valueAt(draft.data, pointer));
  const kind = $derived(property.kind);
  const label = $derived(labelOf(property.key));
  const help = $derived(property.help);
  const problems = $derived(draft.problemsAt(pointer).filter(({ pointer: at }) => at === pointer));
  const what = $derived(`Changed “${label.toLowerCase()}” of the ${(kindOf(component)?.label ?? component.show).toLowerCase()}`);
  const text = $derived(value === undefined ? '' : String(value as string));
  const set = (next: unknown) => draft.set(pointer, next, what);
  /** What has panes gets one for each choice of what it is bound to. */
  function bind(name: string | undefined) {
    const holder = pointer.replace(/\/[^/]*$/, '');
    if (name !== undefined && draft.definition && kindOf(component)?.inner === 'panes')
      draft.edit(bindPanes(draft.definition, page, holder, name), what);
    else set(name);
  }
  /** Most texts of a list appear in each row. The label, the button and the texts for an empty list appear once. */
  const inRow = $derived(
    rows !== undefined && !['label', 'empty', 'beforeSearch', 'submit'].includes(String(fromPointer(pointer).at(-1))) ? rows : undefined,
  );
  const mayBeExpression = $derived((kind.is === 'one-of' || kind.is === 'number') && kind.orExpression === true);
  const isExpression = $derived(mayBeExpression && text.startsWith('{'));
  /** The fixed value as an expression to go on from. */
  const asExpression = () =>
    set(kind.is === 'number' ? `{${text || '1'}}` : `{'${text || (kind.is === 'one-of' && kind.options[0]) || ''}'}`);
  const isShort = (of: PropertyKind): of is Extract<PropertyKind, { is: 'text' }> => of.is === 'text';
</script>

{#if isShort(kind) || kind.is === 'value' || isExpression}
  <ValueBox
    {draft}
    {page}
    {frame}
    {label}
    file={property.key}
    {help}
    {problems}
    row={inRow}
    into={kind.is === 'text' ? 'text' : 'value'}
    value={text}
    lines={property.key === 'text' && component.show === 'text' ? 4 : undefined}
    onset={(next) => set(next === '' && !property.required ? undefined : next)}
  />
  {#if isExpression && me.mayChange}<div class="add">
      <Button small look="quiet" onclick={() => set(undefined)}>Use a fixed value</Button>
    </div>{/if}
{:else if kind.is === 'condition'}
  <ConditionEditor {draft} {page} {frame} {label} {pointer} value={typeof value === 'string' ? value : undefined} onset={set} />
{:else if kind.is === 'bind'}
  <BindBox
    {draft}
    {page}
    {label}
    file={property.key}
    {help}
    {problems}
    types={kind.types}
    required={property.required}
    value={text}
    newList={kindOf(component)?.inner === 'panes' ? component.show : undefined}
    onset={bind}
  />
{:else if kind.is === 'rows' || kind.is === 'collection' || kind.is === 'mail' || kind.is === 'page' || kind.is === 'site'}
  {@const names = {
    rows: Object.keys(draft.definition?.pages[page]?.rows ?? {}),
    collection: Object.keys(draft.definition?.collections ?? {}),
    mail: Object.keys(draft.definition?.mails ?? {}),
    page: Object.keys(draft.definition?.pages ?? {}),
    site: Object.keys(draft.definition?.sites ?? {}),
  }[kind.is]}
  <ChoiceBox
    {label}
    file={property.key}
    {help}
    {problems}
    value={text === '' ? undefined : text}
    options={names}
    none={property.required ? undefined : 'none'}
    disabled={!me.mayChange}
    onset={set}
  />
{:else if kind.is === 'one-of'}
  <ChoiceBox
    {label}
    file={property.key}
    {help}
    {problems}
    value={text === '' ? undefined : text}
    options={kind.options}
    none={property.required ? undefined : 'as usual'}
    disabled={!me.mayChange}
    onset={set}
  />
{:else if kind.is === 'boolean'}
  <CheckBox {label} {help} checked={value === true} disabled={!me.mayChange} onset={(checked) => set(checked ? true : undefined)} />
{:else if kind.is === 'number'}
  <TextBox
    {label}
    file={property.key}
    {help}
    {problems}
    type="number"
    min={kind.min}
    max={kind.max}
    value={text}
    disabled={!me.mayChange}
    onset={(typed) => set(typed === '' ? undefined : Number(typed))}
  />
{:else if kind.is === 'link'}
  {#if value === undefined && !property.required}
    {#if me.mayChange}
      <div class="add">
        <Button small onclick={() => set({ page: Object.keys(draft.definition?.pages ?? {}).find((name) => name !== page) ?? page })}
          >Add: {label.toLowerCase()}</Button
        >
      </div>
    {/if}
  {:else}
    <LinkEditor
      {draft}
      {page}
      {frame}
      {label}
      {help}
      {pointer}
      link={value as LinkDefinition}
      row={inRow}
      saved={component.show === 'form' && property.key === 'then' ? (component['collection'] as string | undefined) : undefined}
      onremove={property.required ? undefined : () => set(undefined)}
    />
  {/if}
{:else if kind.is === 'field'}
  <FieldBox {draft} {page} {label} file={property.key} {help} {problems} {component} value={text} onset={set} />
{:else if kind.is === 'list'}
  <ListEditor
    {draft}
    {label}
    file={property.key}
    {help}
    {problems}
    {pointer}
    item={kind.item}
    short={kind.short}
    {component}
    {page}
    {edit}
  />
{:else if kind.is === 'map'}
  <MapEditor {draft} {page} {frame} {label} file={property.key} {help} {problems} {pointer} row={inRow} {component} />
{:else if kind.is === 'group'}
  <Group {label} file={property.key}>
    {#if value === undefined && !property.required && kind.properties.some((inner) => inner.required)}
      {#if me.mayChange}
        <Button
          small
          onclick={() =>
            set(
              Object.fromEntries(
                kind.properties.filter((inner) => inner.required).map((inner) => [inner.key, inner.kind.is === 'list' ? [] : '']),
              ),
            )}>Add: {label.toLowerCase()}</Button
        >
      {/if}
      {#if help}<p>{help}</p>{/if}
    {:else}
      {#each kind.properties as inner (inner.key)}
        {@render edit(inner, `${pointer}/${inner.key}`)}
      {/each}
      {#if value !== undefined && !property.required && me.mayChange}<Button small look="quiet" onclick={() => set(undefined)}
          >Take it out</Button
        >{/if}
    {/if}
  </Group>
{:else if kind.is === 'data'}
  <DataBox {label} file={property.key} {help} {problems} {value} onset={set} />
{:else}
  <TextBox
    {label}
    file={property.key}
    {help}
    {problems}
    code
    when="done"
    value={text}
    disabled={!me.mayChange}
    onset={(typed) => set(typed === '' && !property.required ? undefined : typed)}
  />
{/if}

{#if mayBeExpression && !isExpression && me.mayChange}
  <div class="add"><Button small look="quiet" onclick={asExpression}>{label}: use an expression</Button></div>
{/if}

<style>
  p {
    margin: 0;
    font-size: 0.8125rem;
    color: var(--quiet);
  }
  .add {
    display: flex;
  }
</style>
