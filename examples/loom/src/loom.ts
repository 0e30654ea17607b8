import { addressToShare, live } from '@pallmist/browser';
import { colourAt, longestFloat, palette, paletteNames, withItem, type Draft } from './draft.ts';
import { Grid, type GridOptions } from './grid.ts';
import { loomPart } from './pages.ts';

const dark = '#2b211a';
const light = '#fffaf0';
const place = (id: string): HTMLElement => document.querySelector<HTMLElement>(`#${id}`)!;

/** Puts the loom on the page, and keeps it and the address the same. */
export function startLoom(): void {
  const state = live(loomPart);
  /** All cells that are painted in one stroke are one step of the history. */
  const change = (parts: Partial<Draft>, stroke: object) => {
    state.set({ draft: { ...state.values.draft, ...parts } }, { gesture: stroke });
  };
  const gridsOf = (draft: Draft): Record<string, GridOptions> => {
    const { shafts, threading, tieUp, treadling, warp, weft } = draft;
    // Shafts are counted from the bottom, as on the loom.
    const shaftOf = (row: number) => shafts - 1 - row;
    return {
      warp: {
        label: 'Warp colours: arrow keys move, space gives the chosen colour',
        columns: threading.length,
        rows: 1,
        colour: (thread) => palette[warp[thread] ?? 0] ?? light,
        paint: (thread, _, stroke) => change({ warp: withItem(state.values.draft.warp, thread, state.values.colour) }, stroke),
      },
      threading: {
        label: 'Threading: arrow keys move, space puts the thread on the shaft',
        columns: threading.length,
        rows: shafts,
        colour: (thread, row) => (threading[thread] === shaftOf(row) ? dark : light),
        paint: (thread, row, stroke) => change({ threading: withItem(state.values.draft.threading, thread, shaftOf(row)) }, stroke),
      },
      'tie-up': {
        label: 'Tie-up: arrow keys move, space ties the treadle to the shaft or unties it',
        columns: shafts,
        rows: shafts,
        colour: (treadle, row) => (tieUp[treadle]?.includes(shaftOf(row)) === true ? dark : light),
        paint: (treadle, row, stroke) => {
          const shaft = shaftOf(row);
          const { tieUp: present } = state.values.draft;
          const raised = present[treadle] ?? [];
          const next = raised.includes(shaft) ? raised.filter((other) => other !== shaft) : [...raised, shaft].sort((a, b) => a - b);
          change({ tieUp: withItem(present, treadle, next) }, stroke);
        },
      },
      treadling: {
        label: 'Treadling: arrow keys move, space chooses the treadle of the pick',
        columns: shafts,
        rows: treadling.length,
        colour: (treadle, pick) => (treadling[pick] === treadle ? dark : light),
        paint: (treadle, pick, stroke) => change({ treadling: withItem(state.values.draft.treadling, pick, treadle) }, stroke),
      },
      weft: {
        label: 'Weft colours: arrow keys move, space gives the chosen colour',
        columns: 1,
        rows: treadling.length,
        colour: (_, pick) => palette[weft[pick] ?? 0] ?? light,
        paint: (_, pick, stroke) => change({ weft: withItem(state.values.draft.weft, pick, state.values.colour) }, stroke),
      },
      cloth: {
        label: `The cloth: ${threading.length} threads, ${treadling.length} picks`,
        columns: threading.length,
        rows: treadling.length,
        colour: (thread, pick) => colourAt(draft, thread, pick),
      },
    };
  };

  const grids = new Map(Object.entries(gridsOf(state.values.draft)).map(([id, options]) => [id, new Grid(place(id), options)]));
  const draw = (draft: Draft) => {
    for (const [id, options] of Object.entries(gridsOf(draft))) grids.get(id)?.draw(options);
    place('facts').textContent =
      `${draft.shafts} shafts, ${draft.threading.length} threads, ${draft.treadling.length} picks. The longest float goes over ${longestFloat(draft)}.`;
  };
  state.subscribe('draft', draw);
  draw(state.values.draft);

  const swatches = palette.map((colour, index) => {
    const box = Object.assign(document.createElement('input'), { type: 'radio', name: 'swatch', ariaLabel: paletteNames[index] ?? '' });
    box.addEventListener('change', () => state.set({ colour: index }));
    const label = document.createElement('label');
    label.style.background = colour;
    label.title = paletteNames[index] ?? '';
    label.append(box);
    place('palette').append(label);
    return box;
  });
  const choose = (colour: number) => swatches.forEach((box, index) => (box.checked = index === colour));
  state.subscribe('colour', choose);
  choose(state.values.colour);

  place('share').addEventListener('click', () => {
    const address = addressToShare(state);
    const said = place('said');
    navigator.clipboard.writeText(address).then(
      () => (said.textContent = 'Copied.'),
      () => (said.textContent = address),
    );
  });
}
