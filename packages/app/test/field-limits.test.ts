import { describe, expect, it } from 'vitest';
import { checkAppFile, fieldReader, planSave, type AppDefinition, type FieldDefinition } from '../src/index.ts';

/** What a limit may be, by the type, said without the code that checks it. */
const isLimit = {
  integer: (limit: unknown) => typeof limit === 'number' && Math.trunc(limit) === limit && Math.abs(limit) < 2 ** 53,
  number: (limit: unknown) => typeof limit === 'number' && Math.abs(limit) !== Infinity,
  date: (limit: unknown) =>
    typeof limit === 'string' &&
    /^\d{4}-\d\d-\d\d$/.test(limit) &&
    !Number.isNaN(Date.parse(limit)) &&
    new Date(limit).toISOString().startsWith(limit),
};
type Limited = keyof typeof isLimit;
const types = Object.keys(isLimit) as Limited[];
const limits = [
  ...[0, -3, 9, 1.5, 2 ** 60, '7', '', ' ', 'abc', 'today', 'today+7d', '{today}', '{param.q}'],
  ...['2026-03-21', '2026-02-30', '2026-3-1', '0001-01-01', '9999-12-31', '2026-03-21T00:00:00Z', '٢٠٢٦-٠٣-٢١'],
];
const cases = types.flatMap((type) =>
  limits.flatMap((limit) => (['min', 'max'] as const).map((attribute) => [type, attribute, limit] as const)),
);

const appWith = (field: FieldDefinition) => `pallmist: 1
app: tiny
title: Tiny
mount: /tiny
collections:
  plants: { keyField: code, fields: { code: { type: text }, height: ${JSON.stringify(field)} } }
pages:
  home: { title: Home, address: /, content: [] }
`;
const problemsAt = (field: FieldDefinition, attribute: string) =>
  checkAppFile(appWith(field)).problems.filter(({ pointer }) => pointer === `/collections/plants/fields/height/${attribute}`);
const samples: Record<Limited, string> = { integer: '5', number: '5.5', date: '2026-05-05' };

/** Saves a text in a field, whatever the check says of it. */
function save(field: FieldDefinition, text: string) {
  const collections: AppDefinition['collections'] = { plants: { keyField: 'code', fields: { code: { type: 'text' }, height: field } } };
  const request = { action: 'create' as const, collection: 'plants', fields: ['code', 'height'], set: {} };
  return planSave({ collections }, request, { code: 'a', height: text });
}

describe('limits of fields', () => {
  it.each(cases)('%s with %s %j is refused by the check, or can be kept', (type, attribute, limit) => {
    const field: FieldDefinition = { type, [attribute]: limit };
    const found = problemsAt(field, attribute);
    expect(found.map(({ code, severity }) => `${severity} ${code}`)).toEqual(isLimit[type](limit) ? [] : ['error bad-limit']);
    // An edition of the past may have been published with it: a save then is refused, and does not fail.
    expect(() => save(field, samples[type])).not.toThrow();
    if (isLimit[type](limit)) expect(fieldReader({}, field)(String(limit))).toBe(limit);
  });

  it.each([
    ['integer', 9, 3],
    ['number', 0.3, 0.2],
    ['date', '2026-03-22', '2026-03-21'],
  ] as const)('%s from %j to %j is refused, as nothing fits', (type, min, max) => {
    expect(problemsAt({ type, min, max }, 'min').map(({ code }) => code)).toEqual(['limits-cross']);
    expect(problemsAt({ type, min: max, max: min }, 'min')).toEqual([]);
    expect(save({ type, min, max }, samples[type]).problems['height']).toMatch(/./);
  });

  it.each(types)('of another type than %s say nothing, and the check says so', (type) => {
    const limit = type === 'date' ? '2026-03-21' : 3;
    for (const other of ['text', 'boolean', 'file'] as const)
      expect(problemsAt({ type: other, min: limit }, 'min').map(({ code }) => code)).toEqual(['attribute-without-effect']);
  });
});
