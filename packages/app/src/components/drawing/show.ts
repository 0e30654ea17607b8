import { spoken } from '../../view/spoken.ts';
import type { KeepingForm } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import type { drawing } from './definition.ts';

export interface DrawingNode {
  show: 'drawing';
  name: string;
  label: string;
  colours: { name: string; colour: string }[];
  /** The number of each cell’s colour, row by row. */
  cells: number[][];
  /** The value as JSON, for browsers without JavaScript. */
  json: string;
  form: KeepingForm;
}

export function show(component: ComponentOf<typeof drawing>, context: ViewContext): DrawingNode {
  const { bind, columns, rows } = component;
  const colours = Object.entries(component.colours).map(([name, colour]) => ({ name: spoken(name), colour }));
  const value = context.values[bind];
  const given = Array.isArray(value) ? (value as unknown[]) : [];
  // An address may hold anything that its schema allows: what is no colour is an empty cell.
  const cell = (row: unknown, column: number) => {
    const number = typeof row === 'string' ? Number(row.charAt(column)) : 0;
    return Number.isInteger(number) && number < colours.length ? number : 0;
  };
  const cells = Array.from({ length: rows }, (_, row) => Array.from({ length: columns }, (__, column) => cell(given[row], column)));
  return {
    show: 'drawing',
    name: bind,
    label: context.text(component.label),
    colours,
    cells,
    json: JSON.stringify(drawn(cells)),
    form: context.keepingForm(bind),
  };
}

/** What is painted as the parameter’s value. Empty rows at the end are left out, so that equal pictures have one address. */
export function drawn(cells: readonly (readonly number[])[]): string[] {
  const rows = cells.map((row) => row.join('').replace(/0+$/, ''));
  while (rows.at(-1) === '') rows.pop();
  return rows;
}
