<script lang="ts">
  import { apiBase } from '@pallmist/api';
  import Button from '../controls/Button.svelte';
  import type { Draft } from '../draft/draft.svelte.ts';
  import { client, explain } from '../service/calls.ts';
  import { me } from '../service/me.svelte.ts';
  import { place } from '../service/place.svelte.ts';
  import { madeChange, undoChanges, type MadeChange } from './grid-undo.ts';
  import GridCell from './GridCell.svelte';
  import { GridRecords } from './records.svelte.ts';
  import RemovedRecord from './RemovedRecord.svelte';
  import Failure from '../controls/Failure.svelte';
  import Note from '../controls/Note.svelte';

  const { draft, collection }: { draft: Draft; collection: string } = $props();
  // svelte-ignore state_referenced_locally -- another collection gets another grid
  const records = new GridRecords(draft.app, collection);
  const size = 50;
  const declared = $derived(draft.definition?.collections?.[collection]);
  const fields = $derived(Object.entries(declared?.fields ?? {}));
  const find = $derived(place.text('find') ?? '');
  const field = $derived(place.text('field'));
  const value = $derived(place.text('value'));
  const sort = $derived(place.text('sort'));
  const page = $derived(place.number('page') ?? 1);
  const filters = $derived(fields.filter(([, { type }]) => type === 'choice' || type === 'boolean' || type === 'record'));
  const pages = $derived(Math.max(1, Math.ceil((records.found?.total ?? 0) / size)));
  /** What is wrong in a cell, by key and field. */
  let wrong: Record<string, Record<string, string>> = $state({});
  let said: string | undefined = $state();
  let fresh: Record<string, string> = $state({});
  let freshWrong: Record<string, string> = $state({});
  /** Drawn again after a change of the fields is on the service. */
  const query = $derived({
    page,
    size,
    ...(find === '' ? {} : { search: find }),
    ...(field === undefined || value === undefined ? {} : { where: [{ field, equals: value === '~empty' ? '' : value }] }),
    ...(sort === undefined ? {} : { sort: { field: sort.replace(/^-/, ''), descending: sort.startsWith('-') } }),
  });

  $effect(() => {
    void draft.saves;
    if (draft.saved) void records.load(query);
  });

  /** What Undo undoes. */
  let made: readonly MadeChange[] = $state.raw([]);
  const shownAt = (key: string) => records.found?.records.find((record) => keyOf(record) === key);

  async function undo(): Promise<void> {
    const { changes, others } = undoChanges(
      made,
      await records.current(
        made.map(({ key }) => key),
        keyOf,
      ),
    );
    const results = await records.change(changes);
    const failed = results.find(({ problem, problems }) => problem !== undefined || problems !== undefined);
    const reason = failed?.problem ?? Object.values(failed?.problems ?? {})[0];
    made = [];
    said = [
      'Undone.',
      ...(others.length === 0
        ? []
        : [`These records were changed or removed by another person, so they stay as they are: ${others.join(', ')}.`]),
      ...(reason === undefined ? [] : [reason]),
    ].join(' ');
    await records.load(query);
  }

  async function change(key: string, name: string, text: string): Promise<void> {
    said = undefined;
    made = [];
    const wanted = { key, change: { [name]: text } };
    const before = shownAt(key);
    const [result] = await records.change([wanted]);
    const { [name]: _, ...others } = wrong[key] ?? {};
    if (result?.key === undefined) {
      wrong[key] = {
        ...others,
        [name]: result?.problems?.[name] ?? result?.problem ?? Object.values(result?.problems ?? {})[0] ?? 'It was not saved.',
      };
      return;
    }
    wrong[key] = others;
    said = 'Saved.';
    await records.load(query);
    made = [madeChange(wanted, before, shownAt(result.key), result.key)];
  }
  async function create(): Promise<void> {
    made = [];
    const [result] = await records.change([{ create: fresh }]);
    freshWrong = result?.problems ?? {};
    if (result?.key === undefined) {
      said = result?.problem ?? 'The record was not saved. Correct what is marked.';
      return;
    }
    fresh = {};
    said = `Added ${result.key}.`;
    await records.load(query);
  }
  async function remove(key: string): Promise<void> {
    made = [];
    const before = records.found?.records.find((record) => record[declared?.keyField ?? ''] === key);
    const [result] = await records.change([{ key, remove: true }]);
    if (result?.problem !== undefined || result?.problems !== undefined) {
      said = result.problem ?? Object.values(result.problems ?? {})[0];
      return;
    }
    removed = before;
    said = `Removed ${key}.`;
    await records.load(query);
  }
  let removed: Record<string, string> | undefined = $state.raw();
  async function bringBack(): Promise<void> {
    if (removed === undefined) return;
    const [result] = await records.change([{ create: removed }]);
    if (result?.key === undefined) {
      const [reason] = Object.values(result?.problems ?? {});
      said = `It could not be restored. ${result?.problem ?? reason ?? ''}`.trim();
      return;
    }
    said = `${result.key} is back.`;
    removed = undefined;
    await records.load(query);
  }

  /** Cells from a spreadsheet: as new rows, or over those that are there from the cell on. */
  async function paste(event: ClipboardEvent, row: number, column: number): Promise<void> {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!text.includes('\t') && !text.trim().includes('\n')) return;
    event.preventDefault();
    const { readPasted } = await import('../start/read-file.ts');
    const cells = readPasted(text);
    const names = fields.slice(column).map(([name]) => name);
    // A table from elsewhere does not have what is computed here; one that was exported has it.
    const filledIn = names.filter((name) => declared?.fields[name]?.computed === undefined);
    const namesOf = (line: readonly string[]) => (line.length > filledIn.length ? names : filledIn);
    const shown = records.found?.records ?? [];
    const keyField = declared?.keyField ?? '';
    const changes = cells.map((line, index) => {
      const texts = Object.fromEntries(namesOf(line).flatMap((name, at) => (line[at] === undefined ? [] : [[name, line[at].trim()]])));
      const key = row < 0 ? undefined : shown[row + index]?.[keyField];
      return key === undefined ? { create: texts } : { key, change: texts };
    });
    const before = changes.map((wanted) => ('change' in wanted && wanted.key !== undefined ? shownAt(wanted.key) : undefined));
    const results = await records.change(changes);
    const bad = results.filter(({ key }) => key === undefined);
    const [first] = bad;
    said =
      bad.length === 0
        ? `Pasted ${changes.length} ${changes.length === 1 ? 'row' : 'rows'}.`
        : `Pasted ${changes.length - bad.length} rows; ${bad.length} were refused: row ${results.indexOf(first ?? {}) + 1}, ${
            first?.problem ?? Object.entries(first?.problems ?? {}).map(([name, problem]) => `${name}: ${problem}`)[0] ?? ''
          }`;
    await records.load(query);
    made = results.flatMap(({ key }, index) => {
      const wanted = changes[index];
      return key === undefined || wanted === undefined ? [] : [madeChange(wanted, before[index], shownAt(key), key)];
    });
  }

  async function bring(file: File | undefined): Promise<void> {
    if (file === undefined) return;
    said = 'Importing the records …';
    try {
      const { rows } = await client.importText(draft.app, collection, new Uint8Array(await file.arrayBuffer()));
      said = `${rows.toLocaleString('en')} ${rows === 1 ? 'record is' : 'records are'} in.`;
    } catch (error) {
      said = explain(error);
    }
    await records.load(query);
  }
  const keyOf = (record: Record<string, string>) => record[declared?.keyField ?? ''] ?? '';
</script>

<div class="tools">
  <input
    type="search"
    aria-label="Search the records"
    placeholder="Search by {declared?.titleField ?? declared?.keyField}"
    value={find}
    oninput={({ currentTarget }) => place.change({ find: currentTarget.value || undefined })}
  />
  {#if filters.length > 0}
    <select
      aria-label="Field to filter by"
      value={field ?? ''}
      onchange={({ currentTarget }) => place.change({ field: currentTarget.value || undefined, value: undefined })}
    >
      <option value="">no filter</option>
      {#each filters as [name, one] (name)}<option value={name}>{one.label ?? name}</option>{/each}
    </select>
    {#if field !== undefined}
      {@const one = declared?.fields[field]}
      <select
        aria-label="Value to filter by"
        value={value ?? ''}
        onchange={({ currentTarget }) => place.change({ value: currentTarget.value || undefined })}
      >
        <option value="">any</option>
        <option value="~empty">empty</option>
        {#if one?.type === 'boolean'}<option value="true">yes</option><option value="false">no</option>
        {:else if one?.type === 'choice'}{#each Object.entries(draft.definition?.choices?.[one.of ?? ''] ?? {}) as [choice, label] (choice)}<option
              value={choice}>{typeof label === 'string' ? label : label.label}</option
            >{/each}
        {:else}{#each Object.entries(records.found?.titles[field] ?? {}) as [key, title] (key)}<option value={key}>{title}</option
            >{/each}{/if}
      </select>
    {/if}
  {/if}
  <span class="count" role="status"
    >{records.found === undefined
      ? 'Loading …'
      : `${records.found.total.toLocaleString('en')} ${records.found.total === 1 ? 'record' : 'records'}`}</span
  >
  <span class="end">
    {#if me.mayChange}
      <label class="file"
        >Import CSV <input type="file" accept=".csv,text/csv" onchange={({ currentTarget }) => bring(currentTarget.files?.[0])} /></label
      >
    {/if}
    <a href="{apiBase}/apps/{draft.app}/records/{collection}?format=csv" download>Export CSV</a>
    <a href="{apiBase}/apps/{draft.app}/records/{collection}?format=json" download>JSON</a>
  </span>
</div>
<Failure text={records.failure} />
<p class="said" role="status">
  {said ?? ''}
  {#if made.length > 0}<Button small look="quiet" aria-label="Undo this change of the records" onclick={undo}>Undo</Button>{/if}
  {#if records.total > 1}<progress max={records.total} value={records.done} aria-label="Changes that are saved"></progress>{/if}
</p>
{#if removed}
  {#key removed}
    <RemovedRecord {draft} {collection} record={removed} onback={bringBack} onsaid={(sentence) => (said = sentence)} />
  {/key}
{/if}
{#if records.found}
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -- what scrolls can be scrolled by keys -->
  <div class="scroll" role="group" aria-label="Records" tabindex="0">
    <table>
      <thead>
        <tr>
          {#each fields as [name, one] (name)}
            <th scope="col" aria-sort={sort === name ? 'ascending' : sort === `-${name}` ? 'descending' : 'none'}>
              <button
                type="button"
                onclick={() => place.change({ sort: sort === name ? `-${name}` : sort === `-${name}` ? undefined : name })}
                >{one.label ?? name}{sort === name ? ' ↑' : sort === `-${name}` ? ' ↓' : ''}</button
              >
            </th>
          {/each}
          <th scope="col"><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        {#each records.found.records as record, row (keyOf(record))}
          <tr>
            {#each fields as [name, one], column (name)}
              <td>
                <GridCell
                  {draft}
                  label="{one.label ?? name} of {keyOf(record)}"
                  field={one}
                  value={record[name] ?? ''}
                  title={records.found.titles[name]?.[record[name] ?? '']}
                  problem={wrong[keyOf(record)]?.[name]}
                  disabled={!me.mayChange || one.type === 'file' || one.computed !== undefined}
                  onset={(text) => change(keyOf(record), name, text)}
                  onpaste={(event) => paste(event, row, column)}
                />
              </td>
            {/each}
            <td
              >{#if me.mayChange}<Button small look="quiet" aria-label="Remove {keyOf(record)}" onclick={() => remove(keyOf(record))}
                  >Remove</Button
                >{/if}</td
            >
          </tr>
        {/each}
        {#if me.mayChange}
          <tr class="fresh">
            {#each fields as [name, one], column (name)}
              <td>
                <GridCell
                  {draft}
                  label="{one.label ?? name} of a new record"
                  field={one}
                  value={fresh[name] ?? ''}
                  placeholder={one.serial ?? (one.computed === undefined ? '' : 'computed')}
                  problem={freshWrong[name]}
                  disabled={one.type === 'file' || one.computed !== undefined}
                  onset={(text) => (fresh = { ...fresh, [name]: text })}
                  onpaste={(event) => paste(event, -1, column)}
                />
              </td>
            {/each}
            <td
              ><Button small look="main" disabled={Object.values(fresh).every((text) => text === '')} onclick={create}
                >Add the record</Button
              ></td
            >
          </tr>
        {/if}
      </tbody>
    </table>
  </div>
  {#if records.found.total === 0}<Note>
      No record yet. Type one into the last row, paste rows from a spreadsheet, or import a CSV file.
    </Note>{/if}
  {#if pages > 1}
    <p class="pager">
      <Button small disabled={page <= 1} onclick={() => place.change({ page: page - 1 })}>Previous</Button>
      Page {page} of {pages.toLocaleString('en')}
      <Button small disabled={page >= pages} onclick={() => place.change({ page: page + 1 })}>Next</Button>
    </p>
  {/if}
{/if}

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.4rem 0.7rem;
    font-size: 0.875rem;
  }
  .tools input[type='search'],
  select {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.2rem 0.5rem;
  }
  .count {
    color: var(--quiet);
  }
  .end {
    margin-inline-start: auto;
    display: flex;
    gap: 0.8rem;
    align-items: center;
  }
  .file {
    color: var(--leaf);
    text-decoration: underline;
    cursor: pointer;
    position: relative;
  }
  .file input {
    position: absolute;
    inset: 0;
    opacity: 0;
    cursor: pointer;
  }
  .file:focus-within {
    outline: 3px solid var(--leaf);
  }
  .scroll {
    overflow: auto;
    max-height: calc(100vh - 15rem);
    border: 1px solid var(--line);
    background: var(--sheet);
  }
  table {
    border-collapse: collapse;
    min-width: 100%;
  }
  th {
    position: sticky;
    top: 0;
    background: var(--sunk);
    text-align: start;
    z-index: 1;
  }
  th button {
    background: none;
    border: 0;
    padding: 0.25rem 0.5rem;
    font: 600 0.8125rem var(--plain);
    cursor: pointer;
    white-space: nowrap;
  }
  td {
    border: 1px solid var(--line);
    padding: 0;
    vertical-align: top;
  }
  td:last-child {
    padding: 0.1rem 0.3rem;
  }
  .fresh td {
    background: var(--leaf-soft);
  }
  p {
    margin: 0.35rem 0;
    font-size: 0.875rem;
  }
  .said {
    min-height: 1.4rem;
    color: var(--quiet);
  }
  .pager {
    display: flex;
    align-items: center;
    gap: 0.7rem;
  }
</style>
