import { fromPointer, type PatchOperation, toPointer } from '@pallmist/address/declare';
import { valueAt } from './patch-data.ts';

/**
 * The JSON Patch that puts a value at a place; what is missing on the way there is made. A value that is undefined is taken
 * out, and with it every map that would be empty then.
 */
export function setValue(data: unknown, pointer: string, value: unknown): PatchOperation[] {
  const keys = fromPointer(pointer);
  if (value === undefined) return removeValue(data, keys);
  if (valueAt(data, pointer) !== undefined) return [{ op: 'replace', path: pointer, value }];
  let length = keys.length - 1;
  while (length > 0 && valueAt(data, toPointer(keys.slice(0, length))) === undefined) length--;
  const made = keys.slice(length + 1).reduceRight<unknown>((inner, key) => ({ [key]: inner }), value);
  // A new part of the app stands before its pages, which are long.
  const before = length === 0 && isMap(data) && 'pages' in data ? { before: 'pages' } : {};
  return [{ op: 'add', path: toPointer(keys.slice(0, length + 1)), value: made, ...before }];
}

function removeValue(data: unknown, keys: readonly string[]): PatchOperation[] {
  if (valueAt(data, toPointer(keys)) === undefined) return [];
  let length = keys.length;
  while (length > 2) {
    const parent = valueAt(data, toPointer(keys.slice(0, length - 1)));
    if (!isMap(parent) || Object.keys(parent).length > 1) break;
    length--;
  }
  return [{ op: 'remove', path: toPointer(keys.slice(0, length)) }];
}

const isMap = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);
