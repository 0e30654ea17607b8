import { z } from 'zod';
import type { Component } from '../definition/app-definition.ts';
import { fieldsOf } from '../components/component-kind.ts';
import { componentKinds, kindOf } from '../components/kinds.ts';
import { References } from '../components/references.ts';
import { condition, link, name, path, settingOf, text, value } from '../definition/schema-parts.ts';

/** What a property of a component takes, and so with what it is edited. */
export type PropertyKind =
  | { is: 'text' }
  | { is: 'value' }
  | { is: 'condition' }
  | { is: 'link' }
  | { is: 'bind'; types: readonly string[] }
  | { is: 'rows' }
  | { is: 'collection' }
  | { is: 'mail' }
  | { is: 'page' }
  | { is: 'site' }
  | { is: 'field' }
  | { is: 'name' }
  | { is: 'one-of'; options: readonly string[]; orExpression?: true }
  | { is: 'number'; min?: number | undefined; max?: number | undefined; orExpression?: true }
  | { is: 'boolean' }
  | { is: 'list'; item: PropertyKind; /** An item of a single field is written as the field alone. */ short?: string }
  | { is: 'map'; item: PropertyKind }
  | { is: 'group'; properties: Property[] }
  | { is: 'data' };

/** A property of a component, as the console edits it. */
export interface Property {
  key: string;
  required: boolean;
  /** What the schema says of it. */
  help: string | undefined;
  kind: PropertyKind;
}

type Schema = z.core.$ZodType;
const known = new Map<string, readonly Property[]>();

/** The properties of a kind of component, as its schema has them; `when` and what stands inside of it are edited elsewhere. */
export function propertiesOf(show: string): readonly Property[] {
  let properties = known.get(show);
  if (properties === undefined) known.set(show, (properties = findProperties(show)));
  return properties;
}

function findProperties(show: string): Property[] {
  const kind = componentKinds.find((candidate) => candidate.name === show);
  if (kind === undefined) return [];
  const marks = new Marks();
  const probe = { show, ...marks.fill(fieldsOf(kind)) } as unknown as Component;
  const references = new References();
  kindOf(probe)?.refersTo(probe as never, references);
  return describeShape(fieldsOf(kind), marks.meaningsIn(references));
}

/** What a name at a place stands for, as the references of the component tell. */
type Meanings = ReadonlyMap<string, PropertyKind>;

/**
 * A component in which every name and text is a mark of its own: what it refers to tells what each is for, so that nothing
 * has to be said twice.
 */
class Marks {
  #count = 0;

  fill(shape: Readonly<Record<string, Schema>>): Record<string, unknown> {
    return Object.fromEntries(Object.entries(shape).map(([key, schema]) => [key, this.#valueFor(schema)]));
  }

  #valueFor(schema: Schema): unknown {
    const bare = unwrap(schema);
    const mark = () => `mark${String(++this.#count)}`;
    if (isA(bare, link)) return { page: mark(), values: {} };
    if (bare instanceof z.ZodObject) return this.fill(bare.shape);
    if (bare instanceof z.ZodArray) return [this.#valueFor(bare.element)];
    if (bare instanceof z.ZodRecord) return {};
    if (bare instanceof z.ZodUnion) {
      const options = bare.options as Schema[];
      return this.#valueFor(options.find((option) => unwrap(option) instanceof z.ZodObject) ?? options[0] ?? bare);
    }
    if (bare instanceof z.ZodEnum) return bare.options[0];
    if (bare instanceof z.ZodNumber) return 1;
    if (bare instanceof z.ZodBoolean) return true;
    return mark();
  }

  meaningsIn(references: References): Meanings {
    const meanings = new Map<string, PropertyKind>();
    const at = (place: readonly (string | number)[]) => place.filter((key) => typeof key === 'string').join('.');
    for (const bind of references.binds) meanings.set(at(bind.path), { is: 'bind', types: bind.types });
    for (const rows of references.rows) meanings.set(at(rows.path), { is: 'rows' });
    for (const { name: mark } of references.counted.map(({ field }) => ({ name: field }))) meanings.set(`=${mark}`, { is: 'field' });
    for (const mark of references.collections) meanings.set(`=${mark}`, { is: 'collection' });
    for (const mark of references.mails) meanings.set(`=${mark}`, { is: 'mail' });
    for (const field of references.fields) meanings.set(`=${field.path}`, { is: 'field' });
    return meanings;
  }
}

function describeShape(shape: Readonly<Record<string, Schema>>, meanings: Meanings, at = ''): Property[] {
  return Object.entries(shape).map(([key, schema]) => ({
    key,
    required: !(schema instanceof z.ZodOptional),
    help: helpOf(schema),
    kind: describeSchema(schema, meanings, at === '' ? key : `${at}.${key}`, key),
  }));
}

function describeSchema(schema: Schema, meanings: Meanings, at: string, key: string): PropertyKind {
  const bare = unwrap(schema);
  const meaning = meanings.get(at);
  if (meaning !== undefined) return meaning;
  if (isA(bare, link)) return { is: 'link' };
  const setting = settingOf(bare);
  if (setting !== undefined) return { ...describeSchema(setting, meanings, at, key), orExpression: true } as PropertyKind;
  if (isA(bare, condition)) return { is: 'condition' };
  if (isA(bare, text)) return { is: 'text' };
  if (isA(bare, value)) return { is: 'value' };
  if (isA(bare, path) || (isA(bare, name) && (key === 'field' || key === 'fields'))) return { is: 'field' };
  if (isA(bare, name)) {
    const meant = (['collection', 'mail', 'rows', 'page', 'site'] as const).find((kind) => kind === key);
    return { is: meant ?? 'name' };
  }
  if (bare instanceof z.ZodEnum) return { is: 'one-of', options: bare.options.map(String) };
  if (bare instanceof z.ZodNumber) return { is: 'number', min: finite(bare.minValue), max: finite(bare.maxValue) };
  if (bare instanceof z.ZodBoolean) return { is: 'boolean' };
  if (bare instanceof z.ZodObject) return { is: 'group', properties: describeShape(bare.shape, meanings, at) };
  if (bare instanceof z.ZodRecord) return { is: 'map', item: describeSchema(bare.valueType, meanings, `${at}.*`, key) };
  if (bare instanceof z.ZodArray) return describeList(bare.element, meanings, at, key);
  if (bare instanceof z.ZodString) return { is: 'text' };
  return { is: 'data' };
}

/** A list of fields, each of which may be a name alone or a group with the name in it. */
function describeList(element: Schema, meanings: Meanings, at: string, key: string): PropertyKind {
  const bare = unwrap(element);
  if (!(bare instanceof z.ZodUnion)) return { is: 'list', item: describeSchema(element, meanings, at, key) };
  const options = (bare.options as Schema[]).map(unwrap);
  const group = options.find((option) => option instanceof z.ZodObject);
  if (group === undefined) return { is: 'data' };
  const properties = describeShape(group.shape, meanings, at);
  const hasField = properties.some((property) => property.key === 'field');
  const field: Property = { key: 'field', required: false, help: undefined, kind: { is: 'field' } };
  const optional = hasField ? properties : [field, ...properties.map((property) => ({ ...property, required: false }))];
  return { is: 'list', item: { is: 'group', properties: optional }, short: 'field' };
}

function unwrap(schema: Schema): Schema {
  return schema instanceof z.ZodOptional ? unwrap(schema.unwrap()) : schema;
}

/** Whether a schema is this shared part, even if it has its own description. */
const isA = (schema: Schema, part: z.ZodType): boolean => schema._zod.def === part._zod.def;

function helpOf(schema: Schema): string | undefined {
  const own = (schema as z.ZodType).description;
  if (own !== undefined) return own;
  return schema instanceof z.ZodOptional ? helpOf(schema.unwrap()) : undefined;
}

const finite = (limit: number | null) =>
  limit === null || !Number.isFinite(limit) || Math.abs(limit) >= Number.MAX_SAFE_INTEGER ? undefined : limit;
