import type { AppDefinition, FieldDefinition, FigureDefinition } from '../definition/app-schema.ts';

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

/** What a figure can be, in words, and of fields of which types. */
export const figureKinds: Readonly<Record<keyof FigureDefinition, { label: string; of: readonly FieldDefinition['type'][] }>> = {
  sum: { label: 'Sum', of: ['integer', 'number'] },
  average: { label: 'Average', of: ['integer', 'number'] },
  smallest: { label: 'Smallest', of: ['integer', 'number', 'date'] },
  largest: { label: 'Largest', of: ['integer', 'number', 'date'] },
  distinct: { label: 'Number of different values', of: ['text', 'integer', 'number', 'boolean', 'date', 'choice', 'record'] },
};

/** The fields of a collection of which there is such a figure. */
export const fieldsForFigure = (
  { collections = {} }: Pick<AppDefinition, 'collections'>,
  collection: string,
  figure: keyof FigureDefinition,
): string[] =>
  Object.entries(collections[collection]?.fields ?? {}).flatMap(([name, { type }]) =>
    figureKinds[figure].of.includes(type) ? [name] : [],
  );
