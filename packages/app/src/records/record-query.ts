import type { SortKey } from '@pallmist/address';
import { type Problem, quote } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { Refusal } from '@pallmist/address/pages';
import type { AppDefinition, CollectionDefinition, FieldDefinition } from '../definition/app-definition.ts';
import { operators, type Operator } from '../definition/operators.ts';
import type { PlannedCondition } from '../view/load-plan.ts';
import { fieldReader, type PlainValue } from './field-value.ts';

/** What a program asks of the records of a collection. */
export interface RecordQuery {
  where: PlannedCondition[];
  sort: SortKey[];
  /** Records of a page, 1 to 500. */
  limit: number;
  /** Where the page before ended, as the answer gave it. */
  after: string | undefined;
}

const defaultLimit = 50;
const greatestLimit = 500;
const mostConditions = 20;
const own = ['sort', 'limit', 'after'];

/**
 * Reads the query of a list of records, such as `house=palm&name.contains=fern&planted.within=2020-01-01..&sort=-planted`: a
 * condition is a field, a dot, one of the operators that reads of an app file have, and a value as an address would have it.
 * Lists of `oneOf` have commas between their values, spans of `within` two dots.
 * @returns the query, or every problem with the name of the query parameter that has it
 */
export function readRecordQuery(
  app: Pick<AppDefinition, 'choices' | 'collections'>,
  collection: CollectionDefinition,
  query: URLSearchParams,
): RecordQuery | { problems: Problem[] } {
  const problems: Problem[] = [];
  const say = (parameter: string, message: string) => {
    problems.push({ code: 'wrong-query', severity: 'error', message, parameter });
  };
  const found: RecordQuery = { where: [], sort: [], limit: defaultLimit, after: query.get('after') ?? undefined };
  for (const [name, text] of query) {
    if (own.includes(name)) continue;
    const condition = readCondition(app, collection.fields, name, text);
    if (typeof condition === 'string') say(name, condition);
    else found.where.push(condition);
  }
  if (found.where.length > mostConditions) say('', `A list takes at most ${String(mostConditions)} conditions.`);
  const limit = query.get('limit');
  if (limit !== null) {
    found.limit = /^\d{1,4}$/.test(limit) ? Number(limit) : 0;
    if (found.limit < 1 || found.limit > greatestLimit) say('limit', `“limit” is a whole number from 1 to ${String(greatestLimit)}.`);
  }
  for (const key of (query.get('sort') ?? '').split(',').filter((part) => part !== '')) {
    const field = key.replace(/^-/, '');
    if (Object.hasOwn(collection.fields, field)) found.sort.push({ field, descending: key.startsWith('-') });
    else say('sort', noField(field, collection.fields));
  }
  return problems.length > 0 ? { problems } : found;
}

const noField = (name: string, fields: CollectionDefinition['fields']) =>
  `The collection has no field ${quote(name)}. ${suggest(name, Object.keys(fields))}`.trim();

/** @returns a condition, or what is wrong with it */
function readCondition(
  app: Pick<AppDefinition, 'choices' | 'collections'>,
  fields: CollectionDefinition['fields'],
  name: string,
  text: string,
): PlannedCondition | string {
  const dot = name.indexOf('.');
  const [field, operator] = dot === -1 ? [name, 'equals'] : [name.slice(0, dot), name.slice(dot + 1)];
  const definition = Object.hasOwn(fields, field) ? fields[field] : undefined;
  if (definition === undefined) return noField(field, fields);
  if (!isOperator(operator)) return `There is no operator ${quote(operator)}. Use one of ${operators.join(', ')}.`;
  if (operator === 'empty')
    return text === 'true' || text === 'false' ? { field, operator, value: text === 'true' } : `“${name}” is true or false.`;
  // A part of a text needs not be a text that the field would take.
  if (operator === 'contains' || operator === 'startsWith') return { field, operator, value: text };
  const read = (part: string): PlainValue | Refusal => fieldReader(app, withoutLimits(definition))(part);
  const wrong = (refusal: Refusal) => `“${name}” is ${quote(text, 60)}. ${refusal.message}`;
  if (operator === 'oneOf') {
    const values: PlainValue[] = [];
    for (const part of text.split(',')) {
      const value = read(part);
      if (value instanceof Refusal) return wrong(value);
      values.push(value);
    }
    return { field, operator, value: values };
  }
  if (operator === 'within') return readSpan(field, name, text, read, wrong);
  const value = read(text);
  return value instanceof Refusal ? wrong(value) : { field, operator, value };
}

function readSpan(
  field: string,
  name: string,
  text: string,
  read: (part: string) => PlainValue | Refusal,
  wrong: (refusal: Refusal) => string,
): PlannedCondition | string {
  const [from, to, ...more] = text.split('..');
  if (to === undefined || more.length > 0 || (from === '' && to === ''))
    return `“${name}” has two dots between its ends, one of which can be left out.`;
  const ends: Record<'from' | 'to', string | number | undefined> = { from: undefined, to: undefined };
  for (const [end, part] of [
    ['from', from ?? ''],
    ['to', to],
  ] as const) {
    if (part === '') continue;
    const value = read(part);
    if (value instanceof Refusal) return wrong(value);
    if (typeof value === 'boolean') return `“${name}” compares yes with no. Use “equals”.`;
    ends[end] = value;
  }
  return { field, operator: 'within', value: ends as Extract<PlannedCondition, { operator: 'within' }>['value'] };
}

/** A value beyond what the field takes is no mistake in a question: nothing has it. */
const withoutLimits = ({ min: _, max: __, maxLength: ___, pattern: ____, ...rest }: FieldDefinition): FieldDefinition => rest;

const isOperator = (text: string): text is Operator => (operators as readonly string[]).includes(text);
