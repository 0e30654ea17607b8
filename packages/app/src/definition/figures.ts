import type { FieldDefinition, FigureDefinition } from './app-definition.ts';

/** What a figure of a list is, and of which field. */
export interface Figure {
  of: keyof FigureDefinition;
  field: string;
}

/** A figure as the app file has it: one key, whose value is the field. */
export function figureOf(figure: FigureDefinition): Figure {
  const [[of, field = ''] = ['distinct']] = Object.entries(figure);
  return { of: of as Figure['of'], field };
}

const numbers = ['integer', 'number'] as const;
const ordered = [...numbers, 'date'] as const;

/** The types of fields that have each figure; any type where none is listed. */
export const figureTypes: Readonly<Record<Figure['of'], readonly FieldDefinition['type'][] | undefined>> = {
  sum: numbers,
  average: numbers,
  smallest: ordered,
  largest: ordered,
  distinct: undefined,
};
