import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import type { AppDefinition, FieldDefinition } from '../definition/app-definition.ts';
import { freeName, identifierOf, slugOf } from './names.ts';
import type { Made } from './page-edits.ts';

/** The JSON Patch that adds a collection with a key that counts by itself, and a name. */
export function addCollection(definition: AppDefinition, title: string): Made {
  const name = freeName(slugOf(title, 'records'), Object.keys(definition.collections ?? {}), '-');
  const letter = name.slice(0, 1).toUpperCase();
  const value = {
    keyField: 'number',
    titleField: 'name',
    fields: {
      number: { type: 'text', pattern: `${letter}-[0-9]{4,}`, unique: true, required: true, serial: `${letter}-0000` },
      name: { type: 'text', required: true },
    },
  };
  return { name, patch: [addTo(definition, 'collections', name, value)] };
}

/** The JSON Patch that adds a choices list. */
export function addChoices(definition: AppDefinition, title: string, values: Record<string, string>): Made {
  const name = freeName(slugOf(title, 'choices'), Object.keys(definition.choices ?? {}), '-');
  return { name, patch: [addTo(definition, 'choices', name, values)] };
}

/** Adds an entry to a map at the top of the app file, which is made where there is none. */
export function addTo(
  definition: AppDefinition,
  part: 'collections' | 'choices' | 'gates' | 'mails' | 'words' | 'sites' | 'parameters',
  name: string,
  value: unknown,
): PatchOperation {
  return definition[part] === undefined
    ? { op: 'add', path: toPointer([part]), value: { [name]: value }, before: 'pages' }
    : { op: 'add', path: toPointer([part, name]), value };
}

/** The JSON Patch that adds a field to a collection. */
export function addField(definition: AppDefinition, collection: string, label: string, field: FieldDefinition): Made {
  const name = freeName(identifierOf(label, 'field'), Object.keys(definition.collections?.[collection]?.fields ?? {}));
  const plain = label.toLowerCase() === name;
  const value = plain || label === '' ? field : { ...field, label };
  return { name, patch: [{ op: 'add', path: toPointer(['collections', collection, 'fields', name]), value }] };
}

/** The JSON Patch that gives a collection another key. Addresses that name records by the present one still work, where it can tell them apart. */
export function changeKeyField(definition: AppDefinition, collection: string, field: string): PatchOperation[] {
  const { keyField, formerKeys, fields = {} } = definition.collections?.[collection] ?? {};
  if (keyField === undefined || keyField === field) return [];
  const at = ['collections', collection];
  const patch: PatchOperation[] = [{ op: 'replace', path: toPointer([...at, 'keyField']), value: field }];
  const former = (formerKeys ?? []).filter((one) => one !== field);
  const kept = fields[keyField]?.unique === true && fields[keyField].sensitive !== true && !former.includes(keyField);
  const value = kept ? [...former, keyField] : former;
  if (value.length > 0)
    patch.push({ op: formerKeys === undefined ? 'add' : 'replace', path: toPointer([...at, 'formerKeys']), value, before: 'fields' });
  else if (formerKeys !== undefined) patch.push({ op: 'remove', path: toPointer([...at, 'formerKeys']) });
  return patch;
}
