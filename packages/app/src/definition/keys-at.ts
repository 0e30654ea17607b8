import { own } from '../own.ts';
import { appFileJsonSchema } from './app-file.ts';

type JsonSchema = Readonly<Record<string, unknown>>;

/** Keys whose constant says which of several forms a value has. */
const tellsForms = ['show', 'type'] as const;

let read: JsonSchema | undefined;

/**
 * The keys that may stand in an object of the app file, for “did you mean”. Where the object may have several forms, those
 * of the forms that its own `show` or `type` allows.
 * @param path where the object stands
 * @param data the whole file
 */
export function keysAt(path: readonly (string | number)[], data: unknown): string[] {
  const root = (read ??= appFileJsonSchema() as JsonSchema);
  let value: unknown = data;
  let places = formsOf(root, root, value);
  for (const key of path) {
    value = typeof value === 'object' && value !== null ? own(value as Record<string, unknown>, String(key)) : undefined;
    places = places.flatMap((place) => below(place, String(key)).flatMap((schema) => formsOf(root, schema, value)));
  }
  return [...new Set(places.flatMap(({ properties }) => (isSchema(properties) ? Object.keys(properties) : [])))];
}

/** What may stand at a key of a value. */
function below({ properties, additionalProperties, items }: JsonSchema, key: string): JsonSchema[] {
  const named = isSchema(properties) ? own(properties, key) : undefined;
  return [named ?? additionalProperties, items].filter(isSchema);
}

/** The forms of a schema without references and choices, and of them those that a value says that it has. */
function formsOf(root: JsonSchema, schema: JsonSchema, value: unknown): JsonSchema[] {
  const { $ref } = schema;
  if (typeof $ref === 'string') {
    const named: unknown = own(root['$defs'] as Record<string, unknown>, $ref.replace('#/$defs/', ''));
    return isSchema(named) ? formsOf(root, named, value) : [];
  }
  const parts = ['anyOf', 'oneOf', 'allOf'].flatMap((name) => (Array.isArray(schema[name]) ? (schema[name] as unknown[]) : []));
  const forms = [schema, ...parts.filter(isSchema).flatMap((part) => formsOf(root, part, value))];
  const fitting = forms.filter((form) => fits(form, value));
  return fitting.length === 0 ? forms : fitting;
}

function fits({ properties }: JsonSchema, value: unknown): boolean {
  if (!isSchema(properties) || typeof value !== 'object' || value === null) return true;
  return tellsForms.every((key) => {
    const declared = own(properties, key);
    return !isSchema(declared) || !('const' in declared) || declared['const'] === own(value as Record<string, unknown>, key);
  });
}

const isSchema = (value: unknown): value is JsonSchema => typeof value === 'object' && value !== null && !Array.isArray(value);
