import { type ParameterDeclaration, toPointer } from '@pallmist/address/declare';
import { isPlainPath } from '../../expressions/evaluator.ts';
import type { AppDefinition, PageDefinition } from '../app-definition.ts';
import { report, type CheckContext, type Place } from './context.ts';

/** Where a link stands. */
export interface LinkStanding {
  /** The read in whose rows it stands. */
  row?: string | undefined;
  /** The condition of its component. */
  when?: string | undefined;
}

type Standing = LinkStanding & { from: PageDefinition | undefined };

/** The path that a value is, if it is nothing else: `row.house.code`. */
function pathIn(value: string): string[] | undefined {
  const expression = /^\{\s*([^{}]*?)\s*\}$/.exec(value)?.[1];
  return expression !== undefined && isPlainPath(expression) ? expression.split('.') : undefined;
}

/** The collection and the field that a path into a record ends at. */
function fieldAtPath(
  { collections = {}, parameters }: AppDefinition,
  [root, ...names]: readonly string[],
  { from, row }: Standing,
): { collection: string; field: string } | undefined {
  let collection = root === 'row' ? from?.rows?.[row ?? '']?.from : undefined;
  if (root === 'record') {
    const name = names.shift() ?? '';
    collection = (from?.parameters?.[name] ?? parameters?.[name])?.of;
  }
  for (const name of names.slice(0, -1)) collection = collections[collection ?? '']?.fields[name]?.of;
  const field = names.at(-1);
  return collection === undefined || field === undefined ? undefined : { collection, field };
}

/** What a record parameter is sent is the field that names the record: a name or a title would lead nowhere. */
export function checkSentKey(context: CheckContext, place: Place, value: string, target: ParameterDeclaration, standing: Standing): void {
  const path = pathIn(value);
  if (target.type !== 'record' || path === undefined) return;
  const sent = fieldAtPath(context.definition, path, standing);
  const collection = context.definition.collections?.[target.of ?? ''];
  const key = target.by ?? collection?.keyField;
  if (sent === undefined || sent.collection !== target.of || key === undefined || sent.field === key) return;
  if (!Object.hasOwn(collection?.fields ?? {}, sent.field)) return;
  report(context, place, {
    code: 'link-sends-no-key',
    message: `“${target.of}” are named by “${key}”; this sends “${sent.field}”, which leads to no record.`,
    hint: `Send {${[...path.slice(0, -1), key].join('.')}}.`,
    fix: [{ op: 'replace', path: toPointer(place), value: `{${[...path.slice(0, -1), key].join('.')}}` }],
  });
}

/** A required value that may be absent: then there is no link. */
export function checkMaybeAbsent(context: CheckContext, place: Place, value: string, page: string, { from, when = '' }: Standing): void {
  const [root, name = ''] = pathIn(value) ?? [];
  const declared = from?.parameters?.[name] ?? context.definition.parameters?.[name];
  if (root !== 'param' || declared === undefined || declared.default !== undefined || declared.required === true) return;
  if (from !== undefined && new RegExp(`[{/]${name}\\}`).test(from.address.split('{?')[0] ?? '')) return;
  if (new RegExp(`\\bhas\\(\\s*param\\.${name}\\s*\\)`).test(when)) return;
  report(context, place, {
    code: 'link-may-lack',
    severity: 'warning',
    message: `The page “${page}” requires this value, and “${name}” may be absent here; then there is no link.`,
    hint: `Give the component the condition “when: has(param.${name})”, or give “${name}” a default.`,
  });
}
