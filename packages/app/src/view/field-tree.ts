import type { AppDefinition } from '../definition/app-definition.ts';
import type { FieldValue, RecordData } from './page-payload.ts';

/** Fields of a record, by name; below one that refers to a record, the fields of that. */
export interface FieldTree {
  readonly [field: string]: FieldTree;
}

type Growing = { [field: string]: Growing };

/** Gathers fields by path. */
export class FieldCollector {
  readonly #collections: NonNullable<AppDefinition['collections']>;
  readonly #trees = new Map<string, { collection: string; tree: Growing }>();

  constructor({ collections = {} }: Pick<AppDefinition, 'collections'>) {
    this.#collections = collections;
  }

  /** Begins the tree of a root, with the key of its collection, by which records are named. */
  begin(root: string, collection: string): void {
    if (this.#trees.has(root)) return;
    const { keyField: key } = this.#collections[collection] ?? {};
    this.#trees.set(root, { collection, tree: key === undefined ? {} : { [key]: {} } });
  }

  /** Adds the field at a path below a root; where it leads to a record, the fields by which people name that. */
  add(root: string, path: readonly string[]): void {
    const start = this.#trees.get(root);
    if (start === undefined) return;
    let { collection, tree } = start;
    for (const name of path) {
      const field = this.#collections[collection]?.fields[name];
      if (field === undefined) return;
      tree = tree[name] ??= {};
      if (field.type !== 'record' || field.of === undefined) return;
      collection = field.of;
    }
    // The record itself is meant: as much of it as names it.
    this.#name(collection, tree);
  }

  #name(collection: string, tree: Growing): void {
    const { keyField: key, titleField: title } = this.#collections[collection] ?? {};
    for (const name of [key, title]) if (name !== undefined) tree[name] ??= {};
  }

  tree(root: string): FieldTree {
    return this.#trees.get(root)?.tree ?? {};
  }
}

/** A record with the fields of a tree, and nothing else. */
export function cutRecord(record: RecordData, tree: FieldTree): RecordData {
  const cut: RecordData = {};
  for (const [field, below] of Object.entries(tree)) {
    const value: FieldValue | undefined = record[field];
    if (value !== undefined) cut[field] = typeof value === 'object' ? cutRecord(value, below) : value;
  }
  return cut;
}
