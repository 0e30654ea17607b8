import { fromPointer, type PatchOperation, ProblemError } from '@pallmist/address/declare';

type Holder = Record<string, unknown> | unknown[];

/**
 * Applies a JSON Patch (RFC 6902) to data and leaves the data themselves as they are: what does not change is shared, so
 * that a part is known by its identity to have stayed the same.
 * @throws ProblemError when an operation cannot be carried out
 */
export function patchData(data: unknown, operations: readonly PatchOperation[]): unknown {
  let patched = data;
  for (const operation of operations) patched = applyOne(patched, operation);
  return patched;
}

/** The patch that takes a patch back, for data as they were before it. @throws ProblemError as `patchData` does */
export function invertPatch(data: unknown, operations: readonly PatchOperation[]): PatchOperation[] {
  const inverse: PatchOperation[] = [];
  let now = data;
  for (const operation of operations) {
    inverse.unshift(...invertOne(now, operation));
    now = applyOne(now, operation);
  }
  return inverse;
}

/** What stands at a place; undefined where there is nothing. */
export function valueAt(data: unknown, pointer: string): unknown {
  let value = data;
  for (const key of fromPointer(pointer)) {
    if (!isHolder(value) || !Object.hasOwn(value, key)) return undefined;
    value = (value as Record<string, unknown>)[key];
  }
  return value;
}

function applyOne(data: unknown, operation: PatchOperation): unknown {
  const { op, path } = operation;
  switch (op) {
    case 'add':
      return put(data, fromPointer(path), operation.value, 'add', operation.before);
    case 'replace':
      return put(data, fromPointer(path), operation.value, 'replace');
    case 'remove':
      return put(data, fromPointer(path), undefined, 'remove');
    case 'test':
      if (JSON.stringify(valueAt(data, path)) !== JSON.stringify(operation.value))
        refuse('patch-test', `The value at ${path} does not match the test.`, path);
      return data;
    case 'move': {
      const value = existing(data, operation.from);
      if (isRename(data, operation.from, path)) return renameKey(data, fromPointer(operation.from), fromPointer(path).at(-1) ?? '');
      return put(put(data, fromPointer(operation.from), undefined, 'remove'), fromPointer(path), value, 'add', operation.before);
    }
    case 'copy':
      return put(data, fromPointer(path), structuredClone(existing(data, operation.from)), 'add', operation.before);
  }
}

function existing(data: unknown, pointer: string): unknown {
  const value = valueAt(data, pointer);
  return value === undefined ? missing(pointer) : value;
}

/** Puts a value at a place in a copy of everything on the way there. */
function put(data: unknown, path: readonly string[], value: unknown, how: 'add' | 'replace' | 'remove', before?: string): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return how === 'remove' ? missing('') : value;
  if (!isHolder(data)) return missing(`/${path.join('/')}`);
  if (rest.length > 0) {
    if (!Object.hasOwn(data, key)) return missing(`/${path.join('/')}`);
    const inner = put((data as Record<string, unknown>)[key], rest, value, how, before);
    if (!Array.isArray(data)) return { ...data, [key]: inner };
    return data.map((item: unknown, index) => (String(index) === key ? inner : item));
  }
  if (Array.isArray(data)) return putInList(data, key, value, how);
  if (how !== 'add' && !Object.hasOwn(data, key)) return missing(`/${key}`);
  if (how === 'remove') return Object.fromEntries(Object.entries(data).filter(([name]) => name !== key));
  if (before === undefined || !Object.hasOwn(data, before) || before === key) return { ...data, [key]: value };
  const others = Object.entries(data).filter(([name]) => name !== key);
  return Object.fromEntries(others.flatMap((entry) => (entry[0] === before ? [[key, value], entry] : [entry])));
}

function putInList(list: readonly unknown[], key: string, value: unknown, how: 'add' | 'replace' | 'remove'): unknown[] {
  const index = key === '-' ? list.length : Number(key);
  if (!Number.isInteger(index) || index < 0 || index > list.length || (how !== 'add' && index === list.length)) return missing(`/${key}`);
  if (how === 'add') return [...list.slice(0, index), value, ...list.slice(index)];
  return how === 'remove' ? list.filter((_, at) => at !== index) : list.map((item, at) => (at === index ? value : item));
}

/** A move within one map to a key that is free is a new name for a key, which keeps its place. */
function isRename(data: unknown, from: string, to: string): boolean {
  const [holder, other] = [parentOf(from), parentOf(to)];
  if (holder !== other || from === to) return false;
  const parent = valueAt(data, holder);
  return isHolder(parent) && !Array.isArray(parent) && !Object.hasOwn(parent, fromPointer(to).at(-1) ?? '');
}

function renameKey(data: unknown, from: readonly string[], to: string): unknown {
  const [key = '', ...rest] = from;
  const holder = data as Record<string, unknown>;
  if (rest.length === 0) return Object.fromEntries(Object.entries(holder).map(([name, value]) => [name === key ? to : name, value]));
  const inner = renameKey(holder[key], rest, to);
  if (Array.isArray(data)) return data.map((item: unknown, index) => (String(index) === key ? inner : item));
  return { ...holder, [key]: inner };
}

function invertOne(data: unknown, operation: PatchOperation): PatchOperation[] {
  const { op, path } = operation;
  switch (op) {
    case 'test':
      return [];
    case 'replace':
      return [{ op, path, value: existing(data, path) }];
    case 'remove':
      return [{ op: 'add', path, value: existing(data, path), ...nextKey(data, path) }];
    case 'add':
    case 'copy': {
      const parent = valueAt(data, parentOf(path));
      const key = fromPointer(path).at(-1) ?? '';
      if (Array.isArray(parent)) return [{ op: 'remove', path: key === '-' ? `${parentOf(path)}/${String(parent.length)}` : path }];
      const present = valueAt(data, path);
      return present === undefined ? [{ op: 'remove', path }] : [{ op: 'replace', path, value: present }];
    }
    case 'move': {
      if (isRename(data, operation.from, path)) return [{ op: 'move', from: path, path: operation.from }];
      const removed = put(data, fromPointer(operation.from), undefined, 'remove');
      const added = invertOne(removed, { op: 'add', path, value: null });
      return [...added, { op: 'add', path: operation.from, value: existing(data, operation.from), ...nextKey(data, operation.from) }];
    }
  }
}

/** The key that follows in the same map. */
function nextKey(data: unknown, pointer: string): { before?: string } {
  const parent = valueAt(data, parentOf(pointer));
  if (!isHolder(parent) || Array.isArray(parent)) return {};
  const keys = Object.keys(parent);
  const next = keys[keys.indexOf(fromPointer(pointer).at(-1) ?? '') + 1];
  return next === undefined ? {} : { before: next };
}

const parentOf = (pointer: string) => pointer.slice(0, Math.max(0, pointer.lastIndexOf('/')));
const isHolder = (value: unknown): value is Holder => typeof value === 'object' && value !== null;

const missing = (path: string): never => refuse('patch-missing', `There is nothing at ${path || 'the place'} to change.`, path);

function refuse(code: string, message: string, pointer: string): never {
  throw new ProblemError([{ code, severity: 'error', message, hint: 'Read the file again and retry.', pointer }]);
}
