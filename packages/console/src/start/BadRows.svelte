<script lang="ts">
  import type { BadCell, DataRow, GuessedField } from '@pallmist/app/editing';
  import Button from '../controls/Button.svelte';
  import { download } from '../service/calls.ts';
  import { asCsv } from './read-file.ts';

  interface Props {
    bad: readonly BadCell[];
    fields: readonly GuessedField[];
    rows: readonly DataRow[];
    header: readonly string[];
    /** Lines that could not be read as rows. */
    unread: readonly { line: number; text: string; problem: string }[];
    oncorrect: (row: number, column: number, text: string) => void;
  }
  const { bad, fields, rows, header, unread, oncorrect }: Props = $props();
  const mostShown = 100;

  function save() {
    const numbers = [...new Set(bad.map(({ row }) => row))];
    const lines = numbers.map((row) => rows[row]?.cells ?? []);
    download('rows-left-out.csv', asCsv([header, ...lines, ...unread.map(({ text }) => [text])]), 'text/csv');
  }
</script>

<section aria-label="Rows that do not fit">
  <h2>Rows that do not fit</h2>
  <ul>
    {#each bad.slice(0, mostShown) as cell (`${cell.row}-${cell.column}`)}
      <li>
        <span class="line">Line {cell.line}</span>
        <label
          >{fields[cell.column]?.column}
          <input value={cell.text} onchange={({ currentTarget }) => oncorrect(cell.row, cell.column, currentTarget.value)} /></label
        >
        <span class="bad">{cell.problem}</span>
      </li>
    {/each}
    {#each unread.slice(0, mostShown) as { line, problem } (line)}
      <li><span class="line">Line {line}</span> <span class="bad">{problem} It is left out.</span></li>
    {/each}
  </ul>
  {#if bad.length > mostShown}<p>And {bad.length - mostShown} more.</p>{/if}
  <p><Button onclick={save}>Save these rows as a file</Button> so that you can correct and import them later.</p>
</section>

<style>
  h2 {
    font: 600 1rem var(--plain);
  }
  ul {
    list-style: none;
    margin: 0.4rem 0;
    padding: 0;
    display: grid;
    gap: 0.25rem;
    max-height: 18rem;
    overflow: auto;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0.3rem 0.8rem;
    align-items: baseline;
  }
  .line {
    color: var(--quiet);
    min-width: 5rem;
  }
  .bad {
    color: var(--bad);
  }
  input {
    border: 1px solid var(--edge);
    border-radius: var(--round);
    background: var(--sheet);
    padding: 0.1rem 0.4rem;
  }
  p {
    margin: 0.3rem 0;
  }
</style>
