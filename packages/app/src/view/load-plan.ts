import type { Range, SortKey } from '@pallmist/address';
import type { Values } from '@pallmist/address/declare';
import type { AppDefinition, PageDefinition, ReadDefinition } from '../definition/app-definition.ts';
import { figureOf, type Figure } from '../definition/figures.ts';
import { conditionsOf, operators, type Operator } from '../definition/operators.ts';
import { Evaluator, type EvaluateCel } from '../expressions/evaluator.ts';
import { pageScopeTypes } from '../expressions/page-scope.ts';
import { wordsIn } from './words.ts';
import type { RequestContext, PageData } from './page-payload.ts';

type Plain = string | number | boolean;

/** One condition, its value settled. */
export type PlannedCondition = { field: string; not?: true } & (
  | { operator: Exclude<Operator, 'oneOf' | 'within' | 'empty'>; value: Plain }
  | { operator: 'oneOf'; value: Plain[] }
  | { operator: 'within'; value: Range }
  | { operator: 'empty'; value: boolean }
);

/** One read, with every value that it depends on. */
export interface PlannedRead {
  from: string;
  where: PlannedCondition[];
  /** At least one of these has to hold, where there are any. */
  any?: PlannedCondition[];
  figures?: Record<string, Figure>;
  sort: SortKey[];
  /** Page of the list, from 1. */
  page: number;
  size: number;
  /** True when an absent value says that nothing is to be read. */
  nothing: boolean;
}

/** What a page needs from the store. Two equal plans load the same: the browser compares them before it asks. */
export interface LoadPlan {
  /** `by` is the unique field that names the record, where it is not the key. */
  records: Record<string, { from: string; key: string; by?: string }>;
  rows: Record<string, PlannedRead>;
  /** The records that lists name, where the page says what they are called. */
  lists: Record<string, ListedRecords>;
}

/** The records that a list of keys names. */
export interface ListedRecords {
  from: string;
  keys: readonly string[];
}

const defaultSize = 25;
const greatestPage = 1_000_000;
const greatestSize = 500;

/** BCP 47 tag of the language that a page with these values is in. */
export function languageOf({ language }: Pick<AppDefinition, 'language'>, values: Values): string {
  const tag = values[language ?? ''];
  return typeof tag === 'string' ? tag : 'en';
}

/** The values a page’s expressions may name before anything is loaded. */
export function scopeBeforeLoad(
  app: Pick<AppDefinition, 'title' | 'mount' | 'language' | 'timeZone' | 'words'>,
  values: Values,
  { person, today, visit, previous }: RequestContext,
): Record<string, unknown> {
  return {
    param: values,
    app: { title: titleOf(app, values), mount: app.mount, language: languageOf(app, values), timeZone: app.timeZone ?? 'UTC' },
    today,
    visit,
    // Nobody, and no page before: then “has(person.name)” is false rather than an error.
    person: person ?? {},
    previous: previous ?? {},
  };
}

/**
 * Settles what a page needs from the store for these values.
 * @param records the page's records, once they are loaded: reads may depend on them
 */
export function planLoad(
  app: Pick<AppDefinition, 'title' | 'mount' | 'collections' | 'parameters' | 'words' | 'language' | 'timeZone'>,
  page: PageDefinition,
  values: Values,
  requestContext: RequestContext,
  cel: EvaluateCel,
  records: PageData['records'] = {},
): LoadPlan {
  const scope = { ...scopeBeforeLoad(app, values, requestContext), record: records };
  const evaluator = new Evaluator(scope, pageScopeTypes(app, page), cel);
  const named = labelledOn(page);
  const listed = Object.entries(listedRecords(app, page, values)).filter(([name]) => named.has(name));
  const plan: LoadPlan = { records: {}, rows: {}, lists: Object.fromEntries(listed) };
  for (const [name, declaration] of Object.entries({ ...app.parameters, ...page.parameters })) {
    const key = values[name];
    if (declaration.type === 'record' && declaration.of !== undefined && typeof key === 'string')
      plan.records[name] = { from: declaration.of, key, ...(declaration.by === undefined ? {} : { by: declaration.by }) };
  }
  for (const [name, read] of Object.entries(page.rows ?? {})) {
    if (evaluator.holds(read.when)) plan.rows[name] = planRead(read, evaluator);
  }
  return plan;
}

/** The records that the lists of a page name, by parameter. */
export function listedRecords(app: Pick<AppDefinition, 'parameters'>, page: PageDefinition, values: Values): LoadPlan['lists'] {
  const listed: LoadPlan['lists'] = {};
  for (const [name, { type, items }] of Object.entries({ ...app.parameters, ...page.parameters })) {
    const keys = values[name];
    if (type !== 'list' || items?.type !== 'record' || items.of === undefined || !Array.isArray(keys) || keys.length === 0) continue;
    listed[name] = { from: items.of, keys: keys as unknown[] as string[] };
  }
  return listed;
}

const labelled = new WeakMap<PageDefinition, ReadonlySet<string>>();

/** The parameters whose labels a page shows. */
function labelledOn(page: PageDefinition): ReadonlySet<string> {
  let names = labelled.get(page);
  if (names === undefined) {
    const found = JSON.stringify([page.title, page.rows, page.content]).matchAll(/\blabel\.\??(\w+)/g);
    labelled.set(page, (names = new Set([...found].map(([, name = '']) => name))));
  }
  return names;
}

function planRead(read: ReadDefinition, evaluator: Evaluator): PlannedRead {
  const planned: Record<'where' | 'whereAny', PlannedCondition[]> = { where: [], whereAny: [] };
  let nothing = false;
  for (const { key, condition } of conditionsOf(read)) {
    const operator = operators.find((candidate) => condition[candidate] !== undefined) ?? 'equals';
    const one = planCondition(condition.field, operator, evaluator.value(condition[operator] ?? ''));
    if (one === undefined) nothing ||= condition.absent === 'nothing';
    else planned[key].push(condition.not === true ? { ...one, not: true } : one);
  }
  const figures = Object.entries(read.figures ?? {}).map(([name, figure]): [string, Figure] => [name, figureOf(figure)]);
  const page = read.page === undefined ? 1 : Number(evaluator.value(read.page) ?? 1);
  return {
    from: read.from,
    where: planned.where,
    ...(planned.whereAny.length === 0 ? {} : { any: planned.whereAny }),
    ...(figures.length === 0 ? {} : { figures: Object.fromEntries(figures) }),
    sort: sortKeys(read.sort === undefined ? undefined : evaluator.value(read.sort)),
    page: Number.isInteger(page) && page >= 1 ? Math.min(page, greatestPage) : 1,
    size: pageSize(read.size === undefined ? undefined : Number(evaluator.value(read.size))),
    nothing,
  };
}

const pageSize = (size: number | undefined) =>
  size === undefined || !Number.isInteger(size) || size < 1 ? defaultSize : Math.min(size, greatestSize);

/** A condition with a value that its operator can use; undefined where the value is absent. */
function planCondition(field: string, operator: Operator, value: unknown): PlannedCondition | undefined {
  switch (operator) {
    case 'oneOf': {
      // A list that is empty asks for nothing in particular.
      const values = Array.isArray(value) ? value.filter(isPlain) : isPlain(value) && value !== '' ? [value] : [];
      return values.length === 0 ? undefined : { field, operator, value: values };
    }
    case 'within':
      return typeof value === 'object' && value !== null ? { field, operator, value: value } : undefined;
    case 'empty':
      return typeof value === 'boolean' ? { field, operator, value } : undefined;
    default:
      return isPlain(value) && (value !== '' || operator === 'equals') ? { field, operator, value } : undefined;
  }
}

const isPlain = (value: unknown): value is Plain => typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean';

function sortKeys(value: unknown): SortKey[] {
  if (Array.isArray(value)) return value as SortKey[];
  if (typeof value !== 'string') return [];
  return value
    .split(',')
    .map((text) => text.trim())
    .filter((text) => text !== '')
    .map((text) => ({ field: text.replace(/^-/, ''), descending: text.startsWith('-') }));
}

/** The title of an app, which may be in words of its languages. */
function titleOf(app: Parameters<typeof scopeBeforeLoad>[0], values: Values): string {
  if (!app.title.includes('{')) return app.title;
  return new Evaluator({ word: wordsIn(app.words, languageOf(app, values)) }, {}, () => undefined).text(app.title);
}
