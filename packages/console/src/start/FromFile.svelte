<script lang="ts">
  import type { AppSummary } from '@pallmist/api';
  import {
    badCells,
    type CollectionDefinition,
    guessFields,
    proposeKey,
    proposeTitle,
    type GuessedField,
    rowsToSend,
  } from '@pallmist/app/editing';
  import { appFileText, appFromCollection, collectionFrom, nameNewApp } from '@pallmist/app/new-app';
  import Button from '../controls/Button.svelte';
  import TextBox from '../controls/TextBox.svelte';
  import { client, explain } from '../service/calls.ts';
  import { place } from '../service/place.svelte.ts';
  import BadRows from './BadRows.svelte';
  import FieldTable from './FieldTable.svelte';
  import { RowImport } from './import-rows.svelte.ts';
  import { mostBytes, readDataFile, type ReadFile } from './read-file.ts';
  import Failure from '../controls/Failure.svelte';

  const { apps }: { apps: readonly AppSummary[] } = $props();

  let file: ReadFile | undefined = $state.raw();
  let fields: GuessedField[] = $state.raw([]);
  let key: string | undefined = $state();
  let titleField: string | undefined = $state();
  let title = $state('');
  let failure: string | undefined = $state();
  let over = $state(false);
  let working: RowImport | undefined = $state();
  const bad = $derived(file === undefined ? [] : badCells(fields, file.rows, key));
  const badRows = $derived(new Set(bad.map(({ row }) => row)).size);

  async function read(chosen: File | undefined) {
    if (chosen === undefined) return;
    failure = undefined;
    try {
      if (chosen.size > mostBytes) throw new Error('The file is larger than 100 MB. Import it with the command: pallmist import.');
      const found = readDataFile(chosen.name, await chosen.text());
      file = found;
      fields = guessFields(found.header, found.rows);
      key = proposeKey(fields);
      titleField = proposeTitle(fields, key);
      const name = chosen.name.replace(/\.[^.]*$/, '').replaceAll(/[_-]+/g, ' ');
      if (title === '') title = name.slice(0, 1).toUpperCase() + name.slice(1);
    } catch (error) {
      failure = error instanceof Error ? error.message : explain(error);
    }
  }

  function correct(row: number, column: number, text: string) {
    if (file === undefined) return;
    const rows = file.rows.map((one, index) =>
      index === row ? { ...one, cells: one.cells.map((cell, at) => (at === column ? text : cell)) } : one,
    );
    file = { ...file, rows };
  }

  /** The key of the first row that fits, by which the pages can be seen. */
  function firstKey({ keyField, fields: declared }: CollectionDefinition): string | undefined {
    const left = new Set(bad.map(({ row }) => row));
    const serial = declared[keyField]?.serial;
    const column = fields.findIndex(({ name }) => name === keyField);
    if (column < 0) return serial?.replace(/0$/, '1');
    return file?.rows.find((_, index) => !left.has(index))?.cells[column]?.trim();
  }

  async function make() {
    if (file === undefined) return;
    failure = undefined;
    const app = nameNewApp(title, apps);
    const made = collectionFrom(title, fields, key, titleField);
    const rows = new RowImport();
    working = rows;
    try {
      await client.call(
        'pushDraft',
        { app: app.app },
        { source: appFileText(appFromCollection(app, made, firstKey(made.collection))), revision: 0, what: 'Made the app from a file' },
      );
      if (await rows.run(app.app, made.name, rowsToSend(made, fields, file.rows, bad))) place.open('pages', { app: app.app });
      else failure = rows.failure ?? `Stopped. ${rows.done} rows are in the app “${app.title}”.`;
    } catch (error) {
      failure = explain(error);
    } finally {
      working = undefined;
    }
  }
</script>

{#if file === undefined}
  <label
    class="drop"
    class:over
    ondragover={(event) => {
      event.preventDefault();
      over = true;
    }}
    ondragleave={() => (over = false)}
    ondrop={(event) => {
      event.preventDefault();
      over = false;
      void read(event.dataTransfer?.files[0]);
    }}
  >
    <strong>Choose a CSV or JSON file, or drop it here</strong>
    <span>The first row of a CSV file names the columns. The file stays in your browser until you make the app.</span>
    <input type="file" accept=".csv,.tsv,.txt,.json,.ndjson,.jsonl" onchange={({ currentTarget }) => read(currentTarget.files?.[0])} />
  </label>
{:else}
  <div class="settle">
    <div class="title"><TextBox label="Title of the app" value={title} onset={(value) => (title = value)} /></div>
    <p role="status">
      {file.rows.length.toLocaleString('en')} rows, {fields.filter(({ skip }) => !skip).length} fields.
      {#if badRows > 0}<span class="warn"
          >{badRows.toLocaleString('en')}
          {badRows === 1 ? 'row does' : 'rows do'} not fit yet; correct {badRows === 1 ? 'it' : 'them'} below, or change the type of the column.</span
        >{:else}All rows fit.{/if}
    </p>
    <FieldTable
      {fields}
      sample={file.rows.slice(0, 3)}
      {key}
      {titleField}
      onfields={(changed) => (fields = changed)}
      onkey={(name) => (key = name)}
      ontitle={(name) => (titleField = name)}
    />
    {#if bad.length > 0 || file.problems.length > 0}
      <BadRows {bad} {fields} rows={file.rows} header={file.header} unread={file.problems} oncorrect={correct} />
    {/if}
    <Failure text={failure} />
    <div class="actions">
      {#if working}
        <progress max={Math.max(1, working.total)} value={working.done} aria-label="Rows that are in"></progress>
        <span role="status">{working.done.toLocaleString('en')} of {working.total.toLocaleString('en')} rows</span>
        <Button onclick={() => working?.stop()}>Stop</Button>
      {:else}
        <Button look="main" disabled={title.trim() === ''} onclick={make}
          >{badRows === 0 ? 'Make the app' : `Make the app without ${badRows} ${badRows === 1 ? 'row' : 'rows'}`}</Button
        >
        <Button look="quiet" onclick={() => (file = undefined)}>Another file</Button>
      {/if}
    </div>
  </div>
{/if}
{#if failure && file === undefined}<p class="bad" role="alert">{failure}</p>{/if}

<style>
  .drop {
    display: grid;
    gap: 0.4rem;
    justify-items: start;
    border: 2px dashed var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 2rem;
    cursor: pointer;
  }
  .drop span {
    color: var(--quiet);
  }
  .over,
  .drop:focus-within {
    border-color: var(--leaf);
    background: var(--leaf-soft);
  }
  .settle {
    display: grid;
    gap: 0.8rem;
  }
  .title {
    max-width: 28rem;
  }
  p {
    margin: 0;
  }
  .warn {
    color: var(--warn);
  }
  .bad {
    color: var(--bad);
  }
  .actions {
    display: flex;
    align-items: center;
    gap: 0.8rem;
  }
</style>
