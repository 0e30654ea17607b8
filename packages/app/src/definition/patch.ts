import { isCollection, isMap, isNode, isScalar, parseDocument, type Document, type Scalar } from 'yaml';
import { modernize } from './former-keys.ts';
import { TextEdits } from './text-edits.ts';
import { TextPieces } from './text-pieces.ts';
import { styleOf, withStyle, type TextStyle } from './text-style.ts';
import { patchData } from '../editing/patch-data.ts';
import { fromPointer, type PatchOperation, type Problem, ProblemError } from '@pallmist/address/declare';

/**
 * The text of an app file that is changed again and again by JSON Patches (RFC 6902), and keeps its comments, order and
 * quotes. Keys of a former form are renamed on the way: patches speak of today's.
 */
export class DraftDocument {
  readonly #document: Document;
  readonly #edits: TextEdits;
  /** The text in pieces, from the first change on that words alone do not do. */
  readonly #pieces: TextPieces | undefined;
  readonly #style: TextStyle;
  #text: string | undefined;
  #data: unknown;

  /** @throws ProblemError when the text is no YAML */
  constructor(text: string) {
    this.#document = parseDocument(text);
    if (this.#document.errors.length > 0) fail('yaml-syntax', 'The file is not well-formed YAML, so it cannot be changed here.', '');
    this.#edits = new TextEdits(text);
    this.#pieces = TextPieces.of(this.#document, text);
    this.#text = text;
    this.#style = styleOf(text);
    const data: unknown = this.#document.toJS({ maxAliasCount: 100 });
    this.#former = modernize(data).operations;
    this.#data = data;
  }
  /** Renames that make the text one of today's, until the first change carries them out. */
  #former: readonly PatchOperation[];

  /** What the text says, in today's form. It is never changed in place, so that equal parts stay the same objects. */
  get data(): unknown {
    return this.#data;
  }

  get text(): string {
    return (this.#text ??=
      this.#edits.result() ?? this.#pieces?.text ?? withStyle(this.#document.toString({ lineWidth: this.#style.lineWidth }), this.#style));
  }

  /** @throws ProblemError when an operation cannot be carried out; then nothing is changed */
  apply(operations: readonly PatchOperation[]): void {
    const data = patchData(this.#data, operations);
    for (const operation of this.#former) this.#change(operation, '');
    this.#former = [];
    for (const [index, operation] of operations.entries()) this.#change(operation, `/${String(index)}`);
    this.#data = data;
    this.#text = undefined;
  }

  #change(operation: PatchOperation, place: string): void {
    const touch = () => {
      this.#pieces?.touch(fromPointer(operation.path));
      if ('from' in operation) this.#pieces?.touch(fromPointer(operation.from));
    };
    // What goes is known before, what comes after.
    touch();
    apply(this.#document, operation, place, this.#edits);
    touch();
  }
}

/**
 * Applies a JSON Patch to the text of an app file.
 * @throws ProblemError when the text is no YAML, or an operation cannot be carried out; then nothing is changed
 */
export function patchSource(text: string, operations: readonly PatchOperation[]): string {
  const document = new DraftDocument(text);
  document.apply(operations);
  return document.text;
}

function apply(document: Document, operation: PatchOperation, place: string, edits: TextEdits): void {
  const path = keysOf(document, operation.path);
  if (path.length === 0) fail('patch-root', 'A patch of the whole file is not supported; send the file instead.', place);
  switch (operation.op) {
    case 'add': {
      edits.giveUp();
      const parent: unknown = document.getIn(path.slice(0, -1), true);
      if (!isCollection(parent)) fail('patch-parent', `There is nothing at ${operation.path} to add to.`, place);
      const last = path.at(-1);
      if (isMap(parent)) putBefore(document, path, document.createNode(operation.value), operation.before);
      else if (last === '-') (parent as { items: unknown[] }).items.push(document.createNode(operation.value));
      else (parent as { items: unknown[] }).items.splice(Number(last), 0, document.createNode(operation.value));
      break;
    }
    case 'replace':
      if (!document.hasIn(path)) fail('patch-missing', `There is nothing at ${operation.path} to replace.`, place);
      edits.replaceScalar(document.getIn(path, true), operation.value);
      replaceAt(document, path, operation.value);
      break;
    case 'remove':
      edits.giveUp();
      if (!document.deleteIn(path)) fail('patch-missing', `There is nothing at ${operation.path} to remove.`, place);
      break;
    case 'test': {
      const present: unknown = (document.getIn(path, true) as { toJSON?: () => unknown } | undefined)?.toJSON?.() ?? document.getIn(path);
      if (JSON.stringify(present) !== JSON.stringify(operation.value))
        fail('patch-test', `The value at ${operation.path} does not match the test.`, place);
      break;
    }
    case 'move':
    case 'copy': {
      const from = keysOf(document, operation.from);
      const node: unknown = document.getIn(from, true);
      if (node === undefined) fail('patch-missing', `There is nothing at ${operation.from}.`, place);
      if (operation.op === 'move' && renamedInPlace(document, from, path, edits)) break;
      edits.giveUp();
      const copy = operation.op === 'copy' ? (node as { clone(): unknown }).clone() : node;
      if (operation.op === 'move') document.deleteIn(from);
      const parent: unknown = document.getIn(path.slice(0, -1), true);
      if (isMap(parent)) putBefore(document, path, copy, operation.before);
      else if (isCollection(parent))
        (parent as { items: unknown[] }).items.splice(path.at(-1) === '-' ? Infinity : Number(path.at(-1)), 0, copy);
    }
  }
}

/** Puts a key into a map, in front of another, or last. */
function putBefore(document: Document, path: readonly (string | number)[], node: unknown, before: string | undefined): void {
  const map: unknown = document.getIn(path.slice(0, -1), true);
  const key = path.at(-1);
  if (!isMap(map)) return;
  const indexOf = (wanted: unknown) => map.items.findIndex((item) => isScalar(item.key) && String(item.key.value) === String(wanted));
  const present = indexOf(key);
  const pair = present < 0 ? document.createPair(key, node) : map.items[present];
  if (!pair) return;
  pair.value = node;
  if (present >= 0 && (before === undefined || before === key)) return;
  if (present >= 0) map.items.splice(present, 1);
  const next = before === undefined ? -1 : indexOf(before);
  map.items.splice(next < 0 ? map.items.length : next, 0, pair);
}

/** Puts a value in the place of another; the comments beside it stay. */
function replaceAt(document: Document, path: readonly (string | number)[], value: unknown): void {
  const before: unknown = document.getIn(path, true);
  if (isScalar(before) && (typeof value !== 'object' || value === null)) {
    // The same node, so that its place in the text is known at the next change too.
    before.value = value;
    return;
  }
  const after = document.createNode(value);
  if (isNode(before)) {
    after.comment = before.comment ?? null;
    after.commentBefore = before.commentBefore ?? null;
  }
  document.setIn(path, after);
}

/** A move within one map is a new name for a key, which keeps its place and its comments. */
function renamedInPlace(
  document: Document,
  from: readonly (string | number)[],
  to: readonly (string | number)[],
  edits: TextEdits,
): boolean {
  if (from.length !== to.length || from.slice(0, -1).some((key, index) => key !== to[index])) return false;
  const parent: unknown = from.length === 1 ? document.contents : document.getIn(from.slice(0, -1), true);
  const pair = isMap(parent) ? parent.items.find((item) => isScalar(item.key) && item.key.value === from.at(-1)) : undefined;
  if (!pair || (isMap(parent) && parent.has(to.at(-1)))) return false;
  edits.replaceScalar(pair.key, to.at(-1));
  (pair.key as Scalar).value = to.at(-1);
  return true;
}

/** The keys of a pointer, with numbers where the document has lists. */
function keysOf(document: Document, pointer: string): (string | number)[] {
  const keys: (string | number)[] = [];
  for (const key of fromPointer(pointer)) {
    const parent: unknown = keys.length === 0 ? document.contents : document.getIn(keys, true);
    keys.push(isCollection(parent) && !isMap(parent) && key !== '-' ? Number(key) : key);
  }
  return keys;
}

function fail(code: string, message: string, pointer: string): never {
  const problem: Problem = { code, severity: 'error', message, pointer, hint: 'Read the file again and retry.' };
  throw new ProblemError([problem]);
}
