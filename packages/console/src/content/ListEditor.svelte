<script lang="ts">
  import type { PatchOperation, Problem } from '@pallmist/app/address';
  import { valueAt, type Component, type Property, type PropertyKind, collectionShownBy } from '@pallmist/app/editing';
  import type { Snippet } from 'svelte';
  import Group from '../controls/Group.svelte';
  import Button from '../controls/Button.svelte';
  import { handleListKeys } from '../controls/list-keys.ts';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { me } from '../service/me.svelte.ts';

  interface Props {
    draft: Draft;
    page: string;
    label: string;
    file: string;
    help: string | undefined;
    problems: readonly Problem[];
    pointer: string;
    item: PropertyKind;
    /** An item that is only this key of a group is written as its value alone. */
    short: string | undefined;
    component: Component;
    edit: Snippet<[property: Property, pointer: string]>;
  }
  const { draft, page, label, file, help, problems, pointer, item, short, component, edit }: Props = $props();
  const items = $derived((valueAt(draft.data, pointer) as unknown[] | undefined) ?? []);
  let open: number | undefined = $state();

  const isText = (value: unknown): value is string | number => typeof value === 'string' || typeof value === 'number';
  function nameOf(value: unknown, index: number): string {
    if (isText(value)) return String(value);
    const { label: words, field, text } = (value ?? {}) as Record<string, unknown>;
    return [words, field, text].find((one): one is string => typeof one === 'string' && one !== '') ?? `${index + 1}`;
  }
  function add() {
    const fields = Object.keys(draft.definition?.collections?.[collectionShownBy(draft.definition, page, component) ?? '']?.fields ?? {});
    const used = items.map((one) => (isText(one) ? one : (one as Record<string, unknown>)['field']));
    const next = fields.find((field) => !used.includes(field)) ?? '';
    const group = item.is === 'group' ? item.properties : [];
    const value =
      short !== undefined
        ? next
        : item.is !== 'group'
          ? item.is === 'number'
            ? 10
            : ''
          : group.some(({ key }) => key === 'field')
            ? { field: next }
            : Object.fromEntries(
                group.filter(({ required }) => required).map(({ key, kind }) => [key, kind.is === 'link' ? { page } : 'New']),
              );
    const patch: PatchOperation[] =
      valueAt(draft.data, pointer) === undefined
        ? [{ op: 'add', path: pointer, value: [value] }]
        : [{ op: 'add', path: `${pointer}/${items.length}`, value }];
    if (draft.edit(patch, `Added to “${label.toLowerCase()}”`)) open = items.length - 1;
  }
  function move(index: number, step: -1 | 1) {
    const to = index + step;
    if (to < 0 || to >= items.length) return;
    if (
      draft.edit([{ op: 'move', from: `${pointer}/${index}`, path: `${pointer}/${to}` }], `Moved an item of “${label.toLowerCase()}”`) &&
      open === index
    )
      open = to;
  }
  function remove(index: number) {
    open = undefined;
    draft.edit([{ op: 'remove', path: `${pointer}/${index}` }], `Took an item out of “${label.toLowerCase()}”`);
  }
  /** An item of a single word becomes a group when it gets more. */
  function expand(index: number) {
    const value = items[index];
    if (short !== undefined && isText(value))
      draft.edit([{ op: 'replace', path: `${pointer}/${index}`, value: { [short]: value } }], `Opened “${String(value)}”`);
    open = open === index ? undefined : index;
  }
  const single = $derived<Property>({ key: 'item', required: true, help: undefined, kind: item });
</script>

<Group {label} {file} {problems} {help}>
  <ol data-list>
    {#each items as value, index (index)}
      <li>
        {#if item.is === 'group'}
          <div class="line">
            <button
              type="button"
              class="name"
              data-list-item
              aria-expanded={open === index}
              onclick={() => expand(index)}
              onkeydown={(event) => handleListKeys(event, { move: (step) => move(index, step), remove: () => remove(index) })}
              >{nameOf(value, index)}</button
            >
            {#if me.mayChange}
              <Button small look="quiet" aria-label="Move {nameOf(value, index)} up" disabled={index === 0} onclick={() => move(index, -1)}
                >Up</Button
              >
              <Button small look="quiet" aria-label="Remove {nameOf(value, index)}" onclick={() => remove(index)}>Remove</Button>
            {/if}
          </div>
          {#if open === index && !isText(value)}
            <div class="inner">
              {#each item.properties as property (property.key)}
                {@render edit(property, `${pointer}/${index}/${property.key}`)}
              {/each}
            </div>
          {/if}
        {:else}
          <div class="line">
            {@render edit({ ...single, key: String(index + 1) }, `${pointer}/${index}`)}
            {#if me.mayChange}<Button small look="quiet" aria-label="Remove {nameOf(value, index)}" onclick={() => remove(index)}
                >Remove</Button
              >{/if}
          </div>
        {/if}
      </li>
    {/each}
  </ol>
  {#if me.mayChange}<Button small onclick={add}>Add: {label.toLowerCase()}</Button>{/if}
</Group>

<style>
  ol {
    list-style: none;
    margin: 0.2rem 0;
    padding: 0;
    display: grid;
    gap: 0.2rem;
  }
  .line {
    display: flex;
    gap: 0.3rem;
    align-items: end;
  }
  .line > :global(.field) {
    flex: 1;
  }
  .name {
    flex: 1;
    min-width: 0;
    text-align: start;
    border: 1px solid var(--line);
    border-radius: var(--round);
    background: var(--paper);
    padding: 0.1rem 0.5rem;
    cursor: pointer;
    font-size: 0.875rem;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .inner {
    display: grid;
    gap: 0.5rem;
    border-inline-start: 2px solid var(--leaf);
    padding: 0.3rem 0 0.4rem 0.6rem;
    margin-block: 0.2rem;
  }
</style>
