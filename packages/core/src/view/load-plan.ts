import type { SortKey, Values } from '../parameters/declaration.ts';
import type { AppDefinition, PageDefinition, ReadDefinition } from '../definition/app-schema.ts';
import { walkContent } from '../definition/component-facets.ts';
import { Evaluator, type EvaluateCel } from '../expressions/evaluator.ts';
import { pageScopeTypes } from '../expressions/page-scope.ts';
import type { Person } from '../gate/pass.ts';

/** One condition, its value settled. */
export interface PlannedCondition {
  field: string;
  operator: 'equals' | 'contains';
  value: string | number | boolean;
}

/** One read, with every value that it depends on. */
export interface PlannedRead {
  from: string;
  where: PlannedCondition[];
  sort: SortKey[];
  /** Page of the list, from 1. */
  page: number;
  size: number;
  /** True when an absent value says that nothing is to be read. */
  nothing: boolean;
}

/** What a page needs from the store. Two equal plans load the same: the browser compares them before it asks. */
export interface LoadPlan {
  records: Record<string, { from: string; key: string }>;
  reads: Record<string, PlannedRead>;
  options: string[];
}

const defaultSize = 25;
const greatestPage = 1_000_000;

/** The values a page’s expressions may name before anything is loaded. */
export function scopeBeforeLoad(
  app: Pick<AppDefinition, 'title' | 'mount'>,
  values: Values,
  person: Person | undefined,
): Record<string, unknown> {
  return { param: values, app: { title: app.title, mount: app.mount }, ...(person ? { person } : {}) };
}

/** Settles what a page needs from the store for these values. */
export function planLoad(
  app: Pick<AppDefinition, 'title' | 'mount' | 'collections'>,
  page: PageDefinition,
  values: Values,
  person: Person | undefined,
  cel: EvaluateCel,
): LoadPlan {
  const evaluator = new Evaluator(scopeBeforeLoad(app, values, person), pageScopeTypes(app, page), cel);
  const plan: LoadPlan = { records: {}, reads: {}, options: [] };
  for (const [name, declaration] of Object.entries(page.parameters ?? {})) {
    const key = values[name];
    if (declaration.type === 'record' && declaration.of !== undefined && typeof key === 'string')
      plan.records[name] = { from: declaration.of, key };
  }
  for (const [name, read] of Object.entries(page.reads ?? {})) plan.reads[name] = planRead(read, evaluator);
  for (const { component } of walkContent(page.content)) {
    const bound = component.show === 'select' ? page.parameters?.[component.bind] : undefined;
    if (bound?.type === 'record' && bound.of !== undefined && !plan.options.includes(bound.of)) plan.options.push(bound.of);
  }
  return plan;
}

function planRead(read: ReadDefinition, evaluator: Evaluator): PlannedRead {
  const where: PlannedCondition[] = [];
  let nothing = false;
  for (const condition of read.where ?? []) {
    const operator = condition.contains === undefined ? 'equals' : 'contains';
    const value = evaluator.value(condition[operator] ?? '');
    const plain = typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean';
    if (!plain || (operator === 'contains' && value === '')) nothing ||= condition.absent === 'nothing';
    else where.push({ field: condition.field, operator, value });
  }
  const page = read.page === undefined ? 1 : Number(evaluator.value(read.page) ?? 1);
  return {
    from: read.from,
    where,
    sort: sortKeys(read.sort === undefined ? undefined : evaluator.value(read.sort)),
    page: Number.isInteger(page) && page >= 1 ? Math.min(page, greatestPage) : 1,
    size: read.size ?? defaultSize,
    nothing,
  };
}

function sortKeys(value: unknown): SortKey[] {
  if (Array.isArray(value)) return value as SortKey[];
  if (typeof value !== 'string') return [];
  return value
    .split(',')
    .map((text) => text.trim())
    .filter((text) => text !== '')
    .map((text) => ({ field: text.replace(/^-/, ''), descending: text.startsWith('-') }));
}
