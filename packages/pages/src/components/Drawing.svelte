<script lang="ts">
  import { drawn, type NodeOf } from '@pallmist/app/view';
  import type { LivePage } from '../live-page.ts';
  import Filter from './Filter.svelte';
  import Labelled from './Labelled.svelte';
  import ToggleGroup from './ToggleGroup.svelte';

  const { node, live }: { node: NodeOf<'drawing'>; live: LivePage } = $props();
  let chosen = $state(1);
  /** The cell that the keyboard is at. */
  let at = $state({ row: 0, column: 0 });
  /** One stroke is one step of the history. */
  let stroke: object | undefined;
  let grid: SVGElement | undefined = $state();
  /** Length of a cell’s sides, in CSS pixels: a target that a finger hits (WCAG 2.2, 2.5.8). */
  const side = 24;
  const columns = $derived(node.cells[0]?.length ?? 1);
  const isEmpty = $derived(node.json === '[]');

  function paint(row: number, column: number) {
    if (node.cells[row]?.[column] === chosen) return;
    const cells = node.cells.map((line, index) => (index === row ? line.with(column, chosen) : line));
    const value = drawn(cells);
    live.change({ [node.name]: value.length === 0 ? undefined : value }, stroke ?? {});
  }

  function cellUnder({ clientX, clientY }: PointerEvent) {
    const { row, column } = (document.elementFromPoint(clientX, clientY) as SVGElement | null)?.dataset ?? {};
    return row === undefined || column === undefined ? undefined : { row: Number(row), column: Number(column) };
  }

  function begin(event: PointerEvent) {
    const cell = cellUnder(event);
    if (event.button !== 0 || cell === undefined) return;
    stroke = {};
    paint(cell.row, cell.column);
  }

  function go(event: PointerEvent) {
    const cell = stroke && cellUnder(event);
    if (cell) paint(cell.row, cell.column);
  }

  const moves: Record<string, [rows: number, columns: number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };

  function key(event: KeyboardEvent) {
    const move = moves[event.key];
    const digit = /^[0-9]$/.test(event.key) ? Number(event.key) : -1;
    if (move) {
      const row = Math.min(node.cells.length - 1, Math.max(0, at.row + move[0]));
      const column = Math.min(columns - 1, Math.max(0, at.column + move[1]));
      at = { row, column };
      grid?.querySelector<SVGElement>(`[data-row="${String(row)}"][data-column="${String(column)}"]`)?.focus();
    } else if (event.key === ' ' || event.key === 'Enter') paint(at.row, at.column);
    else if (digit >= 0 && digit < node.colours.length) chosen = digit;
    else return;
    event.preventDefault();
  }
</script>

<svelte:window onpointerup={() => (stroke = undefined)} />

<Filter form={node.form} {live}>
  <div class="drawing">
    {#if live.hydrated}
      <ToggleGroup legend="{node.label}: colour">
        {#each node.colours as { name, colour }, index (name)}
          <label>
            <input type="radio" name="~colour-{node.name}" checked={index === chosen} onchange={() => (chosen = index)} />
            <svg class="patch" viewBox="0 0 1 1" aria-hidden="true"><rect width="1" height="1" fill={colour} /></svg>
            {name}
          </label>
        {/each}
      </ToggleGroup>
    {/if}
    <!-- A picture rather than boxes: a fill may stand in the document, a style may not (Content Security Policy). -->
    <svg
      role="grid"
      tabindex="-1"
      aria-label={node.label}
      viewBox="0 0 {columns * side} {node.cells.length * side}"
      width={columns * side}
      bind:this={grid}
      onpointerdown={begin}
      onpointermove={go}
      onkeydown={key}
    >
      {#each node.cells as line, row (row)}
        <g role="row">
          {#each line as cell, column (column)}
            <rect
              role="gridcell"
              data-row={row}
              data-column={column}
              x={column * side + 1}
              y={row * side + 1}
              width={side - 2}
              height={side - 2}
              fill={node.colours[cell]?.colour}
              aria-label="{column + 1}, {row + 1}: {node.colours[cell]?.name}"
              tabindex={row === at.row && column === at.column ? 0 : -1}
              onfocus={() => (at = { row, column })}
            />
          {/each}
        </g>
      {/each}
    </svg>
    {#if live.hydrated}
      <p>
        {live.shown.say('Paint with the pointer, or with the arrow keys and the space bar.')}
        <button type="button" disabled={isEmpty} onclick={() => live.change({ [node.name]: undefined })}>{live.shown.say('Clear')}</button>
      </p>
    {:else}
      <Labelled label="{node.label}: a digit for each cell, from 0 to {node.colours.length - 1}">
        <textarea name={node.name} rows="4" value={node.json}></textarea>
      </Labelled>
    {/if}
  </div>
</Filter>

<style>
  .drawing {
    max-width: 100%;
  }
  svg[role='grid'] {
    display: block;
    max-width: 100%;
    height: auto;
    background: var(--edge);
    touch-action: none;
    user-select: none;
    margin: 0.4rem 0;
  }
  [role='gridcell'] {
    cursor: crosshair;
  }
  [role='gridcell']:focus-visible {
    outline: none;
    stroke: var(--leaf);
    stroke-width: 4px;
  }
  .patch {
    width: 1rem;
    height: 1rem;
    border: 1px solid var(--edge);
    border-radius: 3px;
  }
  p {
    margin: 0;
    font-size: 0.875rem;
    color: var(--quiet);
  }
  button {
    font: inherit;
    min-height: 1.9rem;
    padding: 0 0.7rem;
    margin-inline-start: 0.6rem;
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-radius: var(--round);
    color: var(--ink);
  }
  textarea {
    width: 24rem;
    max-width: 100%;
    font-family: ui-monospace, monospace;
  }
</style>
