import { quote, toPointer, type GoneValue, type PatchOperation } from '@pallmist/address/declare';
import { Refusal } from '@pallmist/address/pages';
import type { AppDefinition } from '../definition/app-definition.ts';
import { declaredParameters, type DeclaredParameter } from '../definition/declared-parameters.ts';
import type { FieldReader } from './field-value.ts';

type WithParameters = Pick<AppDefinition, 'collections'> & Partial<Pick<AppDefinition, 'pages' | 'parameters'>>;

interface NamingParameter extends DeclaredParameter {
  /** The field whose text names the record in an address. */
  field: string;
}

/** The parameters that name one record of a collection. */
function namingParameters(app: WithParameters, collection: string): NamingParameter[] {
  const keyField = app.collections?.[collection]?.keyField ?? '';
  return declaredParameters(app)
    .filter(({ declaration: { type, of } }) => type === 'record' && of === collection)
    .map((one) => ({ ...one, field: one.declaration.by ?? keyField }));
}

/**
 * The texts that named records which are gone. No other record may take one: its address tells visitors that the record is gone.
 * @returns the texts by field of the collection
 */
export function goneTexts(app: WithParameters, collection: string): ReadonlyMap<string, ReadonlySet<string>> {
  const gone = new Map<string, Set<string>>();
  for (const { field, declaration } of namingParameters(app, collection)) {
    const texts = Object.keys(declaration.goneValues ?? {});
    if (texts.length > 0) gone.set(field, new Set([...(gone.get(field) ?? []), ...texts]));
  }
  return gone;
}

/** A reader that also refuses what named a record that is gone. */
export function refusingGone(read: FieldReader, gone: ReadonlySet<string> | undefined): FieldReader {
  if (gone === undefined) return read;
  return (text) => {
    const value = read(text);
    return typeof value === 'string' && gone.has(value)
      ? new Refusal('gone-key', `${quote(value)} named a record that is gone. Choose another value.`, value)
      : value;
  };
}

/** Whether an address can name a record of the collection, so that visitors may still come for one that was removed. */
export const hasAddresses = (app: WithParameters, collection: string): boolean => namingParameters(app, collection).length > 0;

/**
 * The JSON Patch that declares a removed record as gone, at each parameter that could name it.
 * @param record the texts of its fields
 */
export function declareRecordGone(
  app: WithParameters,
  collection: string,
  record: Readonly<Record<string, string>>,
  gone: GoneValue,
): PatchOperation[] {
  return namingParameters(app, collection).flatMap(({ place, field, declaration: { goneValues } }): PatchOperation[] => {
    const text = record[field] ?? '';
    if (text === '' || Object.hasOwn(goneValues ?? {}, text)) return [];
    const at = [...place, 'goneValues'];
    if (goneValues === undefined) return [{ op: 'add', path: toPointer(at), value: { [text]: gone } }];
    return [{ op: 'add', path: toPointer([...at, text]), value: gone }];
  });
}

/** The JSON Patch that takes such a declaration back. */
export function declareRecordBack(app: WithParameters, collection: string, record: Readonly<Record<string, string>>): PatchOperation[] {
  return namingParameters(app, collection).flatMap(({ place, field, declaration: { goneValues = {} } }): PatchOperation[] => {
    const text = record[field] ?? '';
    if (!Object.hasOwn(goneValues, text)) return [];
    const alone = Object.keys(goneValues).length === 1;
    return [{ op: 'remove', path: toPointer([...place, 'goneValues', ...(alone ? [] : [text])]) }];
  });
}
