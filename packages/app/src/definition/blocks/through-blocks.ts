import { toPointer, type PatchOperation } from '@pallmist/address/declare';
import { valueAt } from '../../editing/patch-data.ts';
import type { AppDefinition } from '../app-definition.ts';
import { expandBlocks, type ExpandedApp } from './expand-blocks.ts';
import { writtenAt } from './places-in-blocks.ts';

type Rename<Rest extends unknown[]> = (definition: AppDefinition, ...rest: Rest) => PatchOperation[];

/** A rename that also follows what stands in blocks, and what pages give to them. */
export const throughBlocks =
  <Rest extends unknown[]>(rename: Rename<Rest>): Rename<Rest> =>
  (definition, ...rest) => {
    const expanded = expandBlocks(definition);
    const patch = rename(expanded.data as AppDefinition, ...rest);
    return expanded.uses.length === 0 ? patch : new WrittenPatch(definition, expanded, patch).operations;
  };

/** A patch of an expanded app as a patch of the app as it is written. */
class WrittenPatch {
  readonly operations: PatchOperation[] = [];
  readonly #written: unknown;
  readonly #expanded: ExpandedApp;
  /** A page that the patch renames: later places name it by its new name. */
  readonly #page: { from: string; to: string } | undefined;

  constructor(written: unknown, expanded: ExpandedApp, patch: readonly PatchOperation[]) {
    this.#written = written;
    this.#expanded = expanded;
    const moved = patch.find((one) => one.op === 'move' && /^\/pages\/[^/]+$/.test(one.from));
    this.#page = moved?.op === 'move' ? { from: moved.from, to: moved.path } : undefined;
    const told = new Set<string>();
    for (const operation of patch.flatMap((one) => this.#asWritten(one))) {
      const key = JSON.stringify(operation);
      if (!told.has(key)) this.operations.push(operation);
      told.add(key);
    }
  }

  #before = (pointer: string) => swapBeginning(pointer, this.#page?.to, this.#page?.from);
  #after = (pointer: string) => swapBeginning(pointer, this.#page?.from, this.#page?.to);

  #asWritten(operation: PatchOperation): PatchOperation[] {
    const { uses } = this.#expanded;
    const [pointer, source] = [this.#before(operation.path), 'from' in operation ? this.#before(operation.from) : undefined];
    const at = writtenAt(pointer, uses);
    if (at.use === undefined) return [operation];
    if (operation.op === 'move' && source !== undefined) {
      const from = writtenAt(source, uses).pointer;
      return valueAt(this.#written, from) === undefined ? [] : [{ ...operation, from, path: at.pointer }];
    }
    const place = operation.op === 'replace' ? this.#origin(pointer, 0) : undefined;
    return place === undefined ? [] : [{ ...operation, path: this.#after(place) }];
  }

  /** Where the value at a place of the expanded app is written; undefined where it is put together of several. */
  #origin(pointer: string, depth: number): string | undefined {
    const { pointer: place, use } = writtenAt(pointer, this.#expanded.uses);
    const value = valueAt(this.#expanded.data, pointer);
    const written = valueAt(this.#written, place);
    if (JSON.stringify(written) === JSON.stringify(value)) return place;
    const brought = this.#inputAt(place);
    if (brought === undefined || use === undefined || depth > 20) return undefined;
    const { input, rest } = brought;
    const given = use.at + toPointer(['values', input]) + rest;
    if (valueAt(this.#expanded.data, given) !== undefined) return this.#origin(given, depth + 1);
    return toPointer(['blocks', use.block, 'takes', input, 'default']) + rest;
  }

  /** The input that brings the value at a place of a block, or something around it. */
  #inputAt(place: string): { input: string; rest: string } | undefined {
    for (let end = place.length; end > 0; end = place.lastIndexOf('/', end - 1)) {
      const text = valueAt(this.#written, place.slice(0, end));
      const [, input] = typeof text === 'string' ? (/^\{\s*block\.([A-Za-z_]\w*)\s*\}$/.exec(text) ?? []) : [];
      if (input !== undefined) return { input, rest: place.slice(end) };
    }
    return undefined;
  }
}

function swapBeginning(pointer: string, from: string | undefined, to: string | undefined): string {
  if (from === undefined || to === undefined) return pointer;
  return pointer === from || pointer.startsWith(`${from}/`) ? to + pointer.slice(from.length) : pointer;
}
