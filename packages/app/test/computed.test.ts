import { expect, it } from 'vitest';
import { patchData, renameField, usesOfField } from '../src/editing/index.ts';
import { checkAppFile, computeFields, planSave, type AppDefinition } from '../src/index.ts';

const source = (fields: string, form = '[code, height]') => `
pallmist: 1
app: beds
title: Beds
mount: /beds
collections:
  beds:
    keyField: code
    fields:
      code: { type: text, required: true }
      height: { type: number }
      width: { type: number }
      rows: { type: integer }
      code-of-door: { type: text }
      secret: { type: text, sensitive: true }
${fields}
pages:
  home:
    title: Beds
    address: /
    content:
      - { show: form, name: more, action: create, collection: beds, fields: ${form}, submit: Save, label: More, done: Saved }
`;
const problemsOf = (fields: string, form?: string) =>
  checkAppFile(source(fields, form)).problems.filter(({ severity }) => severity === 'error');
const definition = checkAppFile(
  source(`
      area: { type: number, computed: row.height * row.width }
      size: { type: text, computed: 'row.height * row.width > 10.0 ? "large" : "small"' }
      plants: { type: integer, computed: row.rows * 12 }`),
).definition as AppDefinition;
const fields = definition.collections?.['beds']?.fields ?? {};

it('a computed field has the value of its expression, and none where something is missing or of another type', () => {
  expect(computeFields(fields, { code: 'a', height: 2.5, width: 6, rows: 3 })).toEqual({ area: 15, size: 'large', plants: 36 });
  expect(computeFields(fields, { code: 'a', height: 2.5 })).toEqual({ area: undefined, size: undefined, plants: undefined });
  // A computed field is computed from others, whatever stands in it.
  expect(computeFields(fields, { area: 1, height: 1, width: 1, rows: 2 ** 53 })).toEqual({ area: 1, size: 'small', plants: undefined });
});

it('nobody fills it in', () => {
  const { problems } = planSave(definition, { action: 'create', collection: 'beds', fields: ['code', 'area'], set: {} }, { code: 'a' });
  expect(problems).toEqual({ area: 'It is computed, so nobody fills it in.' });
});

it.each([
  ['a type that is not computed', 'house: { type: choice, of: x, computed: row.code }', 'computed-type'],
  ['an expression of another type', 'area: { type: integer, computed: row.height * 2.0 }', 'computed-other-type'],
  ['a name that there is not', 'area: { type: number, computed: row.heigth * 2.0 }', 'unknown-in-expression'],
  ['another computed field', 'a: { type: text, computed: row.b }, b: { type: text, computed: row.code }', 'unknown-in-expression'],
  ['the day', 'age: { type: text, computed: today }', 'unknown-in-expression'],
  ['something sensitive', 'hint: { type: text, computed: row.secret + "!" }', 'computed-sensitive'],
  ['what is about filling in', 'hint: { type: text, computed: row.code, required: true }', 'attribute-without-effect'],
])('the check refuses %s', (_, field, code) => {
  const declared = field
    .split(/, (?=\w+: \{)/)
    .map((one) => `      ${one}`)
    .join('\n');
  expect(problemsOf(declared).map((one) => one.code)).toContain(code);
});

it('the check refuses a form that asks for it', () => {
  const found = problemsOf('      area: { type: number, computed: row.height * 2.0 }', '[code, area]');
  expect(found.map(({ code, message }) => [code, message])).toEqual([['computed-in-form', '“area” is computed, so nobody fills it in.']]);
});

it('follows a field that is renamed, which counts as used', () => {
  const renamed = patchData(definition, renameField(definition, 'beds', 'height', 'tall')) as AppDefinition;
  expect(renamed.collections?.['beds']?.fields['area']?.computed).toBe('row.tall * row.width');
  expect(usesOfField(definition, 'beds', 'rows').map(({ pointer }) => pointer)).toEqual(['/collections/beds/fields/plants/computed']);
});
