import { fromPointer, type Json } from '@pallmist/address/declare';
import { nearest } from '@pallmist/address/explain';
import { linearSearch } from '@pallmist/address/patterns';
import { keywords, schemasIn, unsupported, type Schema } from './keywords.ts';

/** What is wrong in a schema, and where: a JSON Pointer below it. */
export interface SchemaProblem {
  pointer: string;
  message: string;
}

/** Schemas nest no deeper than this. */
const deepest = 100;

/** Checks a schema as the draft’s meta-schema does, and besides: no unknown keyword, no reference without end, no slow pattern. */
export function checkSchema(root: unknown): SchemaProblem[] {
  const problems: SchemaProblem[] = [];
  const fail = (pointer: string, message: string) => problems.push({ pointer, message });
  const visit = (schema: unknown, pointer: string, depth: number): void => {
    if (typeof schema === 'boolean') return;
    if (typeof schema !== 'object' || schema === null || Array.isArray(schema)) {
      fail(pointer, 'A schema is a map of keywords, or true or false.');
      return;
    }
    if (depth > deepest) {
      fail(pointer, 'The schema is nested too deep.');
      return;
    }
    for (const [name, value] of Object.entries(schema as { [keyword: string]: Json })) {
      const place = `${pointer}/${name}`;
      const keyword = Object.hasOwn(keywords, name) ? keywords[name] : undefined;
      if (keyword === undefined) {
        const near = nearest(name, Object.keys(keywords));
        if (unsupported.has(name)) fail(place, `The keyword “${name}” is not understood here.`);
        else fail(place, `There is no keyword “${name}”.${near === undefined ? '' : ` Perhaps “${near}” was meant.`}`);
        continue;
      }
      if (!keyword.is(value)) {
        fail(place, `“${name}” takes ${keyword.takes}.`);
        continue;
      }
      if (name === 'pattern') checkPattern(value as string, place, fail);
      if (name === 'patternProperties')
        for (const pattern of Object.keys(value as object)) checkPattern(pattern, `${place}/${pattern}`, fail);
      if (name === '$ref' && resolveReference(root as Schema, value as string) === undefined)
        fail(place, `The reference “${value as string}” leads to no part of the schema; it begins with “#”, as “#/$defs/name” does.`);
      for (const [below, inner] of schemasIn(name, value)) visit(inner, `${pointer}/${below}`, depth + 1);
    }
  };
  visit(root, '', 0);
  if (problems.length === 0) findEndless(root as Schema, fail);
  return problems;
}

function checkPattern(pattern: string, pointer: string, fail: (pointer: string, message: string) => void): void {
  try {
    linearSearch(pattern);
  } catch (error) {
    fail(pointer, `The pattern “${pattern}” cannot be used: ${error instanceof Error ? error.message : 'it is no regular expression.'}`);
  }
}

/** The schema that a reference leads to; undefined where that is none. */
export function resolveReference(root: Schema, reference: string): Schema | undefined {
  if (!reference.startsWith('#') || (reference.length > 1 && reference[1] !== '/')) return undefined;
  let place: unknown = root;
  try {
    for (const key of fromPointer(decodeURIComponent(reference.slice(1)))) {
      if (typeof place !== 'object' || place === null || !Object.hasOwn(place, key)) return undefined;
      place = (place as Record<string, unknown>)[key];
    }
  } catch {
    return undefined;
  }
  return typeof place === 'boolean' || (typeof place === 'object' && place !== null && !Array.isArray(place))
    ? (place as Schema)
    : undefined;
}

/** Finds schemas that refer to themselves for the very value that they are for: checking a value by them would never end. */
function findEndless(root: Schema, fail: (pointer: string, message: string) => void): void {
  const done = new Set<Schema>();
  const under = new Set<Schema>();
  const visitAll = (schema: Schema, pointer: string): void => {
    if (typeof schema === 'boolean') return;
    follow(schema, pointer);
    for (const [name, value] of Object.entries(schema))
      for (const [below, inner] of schemasIn(name, value)) visitAll(inner as Schema, `${pointer}/${below}`);
  };
  const follow = (schema: Schema, pointer: string): void => {
    if (typeof schema === 'boolean' || done.has(schema)) return;
    if (under.has(schema)) {
      fail(pointer, 'The schema refers to itself without end.');
      return;
    }
    under.add(schema);
    for (const [name, value] of Object.entries(schema)) {
      if (name === '$ref') {
        const target = resolveReference(root, value as string);
        if (target !== undefined) follow(target, `${pointer}/$ref`);
      } else if (keywords[name]?.inPlace)
        for (const [below, inner] of schemasIn(name, value)) follow(inner as Schema, `${pointer}/${below}`);
    }
    under.delete(schema);
    done.add(schema);
  };
  visitAll(root, '');
}
