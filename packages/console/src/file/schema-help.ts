import type { Completion } from '@codemirror/autocomplete';

interface Schema {
  $ref?: string;
  $defs?: Record<string, Schema>;
  title?: string;
  description?: string;
  properties?: Record<string, Schema>;
  additionalProperties?: Schema | boolean;
  items?: Schema;
  anyOf?: Schema[];
  oneOf?: Schema[];
  enum?: unknown[];
  const?: unknown;
}

/** The keys that lead to a place in YAML text, by its indentation; a list is “*”. Flow collections are followed as far as one line goes. */
export function pathAt(text: string, position: number): { path: string[]; key: boolean } {
  const before = text.slice(0, position);
  const lines = before.split('\n');
  const current = lines.at(-1) ?? '';
  const path: string[] = [];
  const item = dashOf(current);
  // The keys of a list may begin in the column of the key that holds it, so a dash counts as half a step further in.
  let indent = item === undefined ? columnOf(current) : item + 1;
  // In braces on this line: the keys before the innermost one that is open.
  const flow = flowPath(current);
  for (let index = lines.length - 2; index >= 0; index--) {
    const line = lines[index] ?? '';
    if (line.trim() === '' || line.trim().startsWith('#')) continue;
    const here = columnOf(line);
    const dash = dashOf(line);
    const key = /^\s*(?:-\s+)*(["']?)([\w.-]+)\1\s*:/.exec(line)?.[2];
    // A line with a dash whose text begins in this column: the first key of the same item.
    const sameItem = dash !== undefined && here === indent;
    if (!sameItem && (here >= indent || (key === undefined && dash === undefined))) continue;
    if (!sameItem && key !== undefined) path.unshift(key);
    if (dash !== undefined) path.unshift('*');
    indent = dash === undefined ? here : dash + 1;
  }
  if (item !== undefined) path.push('*');
  const own = /^\s*(?:-\s+)?(["']?)([\w.-]+)\1\s*:\s/.exec(current)?.[2];
  if (own !== undefined) path.push(own);
  path.push(...flow);
  return { path, key: own === undefined || flow.length > 0 };
}

/** The column of a line’s text, after the dashes of lists. */
const columnOf = (line: string) => /^\s*(?:-\s+)*/.exec(line)?.[0].length ?? 0;
/** The column of the dash of a list item. */
const dashOf = (line: string) => /^(\s*)-(?:\s|$)/.exec(line)?.[1]?.length;

function flowPath(line: string): string[] {
  const stack: string[][] = [];
  let key: string | undefined;
  for (const [token] of line.matchAll(/[{}[\],]|[\w.-]+\s*:/g)) {
    if (token === '{') stack.push(key === undefined ? [] : [key]);
    else if (token === '[') stack.push(['*']);
    else if (token === '}' || token === ']') stack.pop();
    else if (token !== ',') key = token.replace(/\s*:$/, '');
  }
  // The first key is the line’s own.
  return stack.slice(1).flat();
}

/** The schemas that may hold at a place. */
function schemasAt(root: Schema, path: readonly string[]): Schema[] {
  let present = [root];
  for (const key of path) {
    present = present
      .flatMap((schema) => alternatives(root, schema))
      .flatMap((schema) => {
        if (key === '*') return schema.items ? [schema.items] : [];
        const property = schema.properties?.[key];
        if (property) return [property];
        return typeof schema.additionalProperties === 'object' ? [schema.additionalProperties] : [];
      });
  }
  return present.flatMap((schema) => alternatives(root, schema));
}

function alternatives(root: Schema, schema: Schema, depth = 0): Schema[] {
  if (depth > 5) return [];
  const name = schema.$ref?.replace('#/$defs/', '');
  // A description beside a reference is about this place only.
  if (name !== undefined) return [schema, ...(root.$defs?.[name] ? alternatives(root, root.$defs[name], depth + 1) : [])];
  const inner = [...(schema.anyOf ?? []), ...(schema.oneOf ?? [])];
  return inner.length === 0 ? [schema] : [schema, ...inner.flatMap((one) => alternatives(root, one, depth + 1))];
}

/** What may be written at a place: keys, or values that the schema lists. */
export function completionsAt(schema: object, text: string, position: number): Completion[] {
  const { path, key } = pathAt(text, position);
  const found = schemasAt(schema, path);
  const options = new Map<string, Completion>();
  for (const one of found) {
    if (key)
      for (const [name, property] of Object.entries(one.properties ?? {}))
        options.set(name, {
          label: name,
          apply: `${name}: `,
          type: 'property',
          ...(property.description ? { info: property.description } : {}),
        });
    for (const value of [...(one.enum ?? []), ...(one.const === undefined ? [] : [one.const])])
      options.set(String(value), { label: String(value), type: 'enum', ...(one.title ? { info: one.title } : {}) });
  }
  return [...options.values()];
}

/** What the schema says of the key under the pointer. */
export function descriptionAt(schema: object, text: string, position: number): string | undefined {
  const start = text.slice(0, position).search(/[\w-]*$/);
  const word = /^[\w-]+/.exec(text.slice(start))?.[0];
  if (word === undefined || !/^\s*:/.test(text.slice(start + word.length))) return undefined;
  const { path } = pathAt(text, start);
  for (const one of schemasAt(schema, path)) {
    const property = one.properties?.[word];
    const described = property && alternatives(schema as Schema, property).find(({ description }) => description !== undefined);
    if (described?.description !== undefined) return described.description;
  }
  return undefined;
}
