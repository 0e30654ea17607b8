import type { AppDefinition, FieldDefinition, FigureDefinition } from '../definition/app-definition.ts';
import { figureTypes } from '../definition/figures.ts';

/** A field that a condition or a figure can name. */
export interface FieldToChoose {
  /** Its path: `house`, or `house.name` through a reference. */
  path: string;
  label: string;
  type: FieldDefinition['type'];
}

/** The fields of a collection, and those of the records that they refer to. */
export function fieldsToChoose({ collections = {} }: Pick<AppDefinition, 'collections'>, collection: string): FieldToChoose[] {
  return Object.entries(collections[collection]?.fields ?? {}).flatMap(([name, field]) => {
    const own = { path: name, label: field.label ?? name, type: field.type };
    const target = field.type === 'record' ? Object.entries(collections[field.of ?? '']?.fields ?? {}) : [];
    return [
      own,
      ...target.map(([inner, { label, type }]) => ({ path: `${name}.${inner}`, label: `${own.label}: ${label ?? inner}`, type })),
    ];
  });
}

/** What a figure can be, in words. */
export const figureWords: Readonly<Record<keyof FigureDefinition, string>> = {
  sum: 'Sum',
  average: 'Average',
  smallest: 'Smallest',
  largest: 'Largest',
  distinct: 'Number of different values',
};

/** The fields of a collection that have such a figure. */
export const fieldsForFigure = (
  { collections = {} }: Pick<AppDefinition, 'collections'>,
  collection: string,
  figure: keyof FigureDefinition,
): string[] =>
  Object.entries(collections[collection]?.fields ?? {}).flatMap(([name, { type }]) =>
    figureTypes[figure]?.includes(type) === false ? [] : [name],
  );
