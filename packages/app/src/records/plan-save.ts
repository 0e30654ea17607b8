import type { AppDefinition, CollectionDefinition, FieldDefinition } from '../definition/app-definition.ts';
import type { FormFieldDefinition } from '../definition/app-definition.ts';
import { Refusal, refusalIn } from '@pallmist/address/pages';
import type { Sentences } from '@pallmist/address/sentences';
import { fieldReader, fieldText, type PlainRecord, type PlainValue } from './field-value.ts';
import { goneTexts, refusingGone } from './gone-keys.ts';

/** What a form does to which record, read from the app file alike for forms and for rows edited in place. */
export interface SaveRequest {
  action: 'create' | 'change' | 'remove';
  collection: string;
  /** To change or remove: the record's key. */
  key?: string | undefined;
  fields: readonly FormFieldDefinition[];
  /** Values that nobody types, evaluated. */
  set: Record<string, unknown>;
}

/** What is to be done in the store. */
export interface SavePlan {
  action: SaveRequest['action'];
  collection: string;
  key?: string;
  /** The fields that get a value, or none (`undefined`). */
  values: PlainRecord;
}

/** Problems by field, each a sentence for the person at the form. */
export type FieldProblems = Record<string, string>;

export const fieldName = (field: FormFieldDefinition): string => (typeof field === 'string' ? field : field.field);

/**
 * Settles what a sent form saves: each text read by its field, each value set by the app file checked like a typed one.
 * Pure; that keys are unique and that references lead somewhere, the store sees to.
 * @param texts what was typed, by field
 * @param sentences for what is refused, in another language; English when left out
 */
export function planSave(
  app: Pick<AppDefinition, 'choices' | 'collections'> & Partial<Pick<AppDefinition, 'pages' | 'parameters'>>,
  request: SaveRequest,
  texts: Record<string, string>,
  sentences?: Sentences,
): { plan: SavePlan; problems: FieldProblems } {
  const { action, collection, key } = request;
  const plan: SavePlan = { action, collection, values: {}, ...(key === undefined ? {} : { key }) };
  const problems: FieldProblems = {};
  const definition = app.collections?.[collection];
  if (definition === undefined || action === 'remove') return { plan, problems };
  const gone = goneTexts(app, collection);
  const take = (name: string, text: string) => {
    const field = definition.fields[name];
    if (field === undefined) return;
    if (field.computed !== undefined) {
      problems[name] = refusalIn(computedField, sentences);
      return;
    }
    // A record that is there keeps the key that it has.
    const value = readField(app, field, text, text === key ? undefined : gone.get(name));
    if (value instanceof Refusal) problems[name] = refusalIn(value, sentences);
    else plan.values[name] = value;
  };
  for (const field of request.fields) {
    const name = fieldName(field);
    take(name, definition.fields[name]?.type === 'boolean' ? (texts[name] ?? 'false') : (texts[name] ?? ''));
  }
  for (const [name, value] of Object.entries(request.set)) take(name, textOf(value, definition.fields[name], app));
  if (action === 'create') requireAll(definition, plan, problems, sentences);
  return { plan, problems };
}

const computedField = new Refusal('computed-field', 'It is computed, so nobody fills it in.');
const emptyField = new Refusal('empty-field', 'This cannot be empty.');

function textOf(value: unknown, field: FieldDefinition | undefined, { collections }: Pick<AppDefinition, 'collections'>): string {
  return fieldText(value, field?.type === 'record' ? collections?.[field.of ?? ''] : undefined);
}

function readField(
  app: Pick<AppDefinition, 'choices' | 'collections'>,
  field: FieldDefinition,
  text: string,
  gone: ReadonlySet<string> | undefined,
): PlainValue | undefined | Refusal {
  if (text.trim() === '') {
    if (field.required === true) return field.type === 'choice' ? new Refusal('choose-one', 'Choose one.') : emptyField;
    return undefined;
  }
  return refusingGone(fieldReader(app, field), gone)(text);
}

/** Fields that a new record has to have and that the form does not give, except those that count by themselves. */
function requireAll(
  { fields, keyField: key }: CollectionDefinition,
  plan: SavePlan,
  problems: FieldProblems,
  sentences: Sentences | undefined,
): void {
  for (const [name, field] of Object.entries(fields)) {
    if (field.required !== true && name !== key) continue;
    if (field.serial !== undefined || plan.values[name] !== undefined || problems[name] !== undefined) continue;
    problems[name] = refusalIn(emptyField, sentences);
  }
}
