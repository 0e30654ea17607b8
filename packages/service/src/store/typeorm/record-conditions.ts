import type { FieldDefinition, PlannedCondition, PlannedRead, SortKey } from '@pallmist/app';
import type { Collections } from '../records.ts';
import { fold } from '../fold.ts';
import { containsCondition } from '../sqlite/statements.ts';
import type { FieldColumn, RecordTableShape } from './record-tables.ts';
import type { Bound } from './remembered-queries.ts';

/** Conditions as the database takes them: texts with placeholders, and their values. */
export interface ConditionTexts {
  texts: string[];
  values: Record<string, Bound>;
}

/** Where conditions find the tables of other collections. */
export interface ConditionTables {
  collections: Collections;
  /** The table of a collection; undefined where there is none yet. */
  table: (collection: string) => RecordTableShape | undefined;
}

/** A condition on a field that there is not, or by a reference that leads nowhere, holds for no record. */
export function conditionTexts(
  { collections, table }: ConditionTables,
  { from, where, any = [] }: Pick<PlannedRead, 'from' | 'where' | 'any'>,
): ConditionTexts {
  const values: Record<string, Bound> = {};
  const bind = (value: string | number | boolean) => {
    const name = `v${String(Object.keys(values).length)}`;
    values[name] = typeof value === 'boolean' ? Number(value) : value;
    return `:${name}`;
  };
  /** @param alias of the table in the query */
  const onPath = (collection: string, [first = '', ...further]: readonly string[], alias: string, condition: PlannedCondition): string => {
    const field = collections[collection]?.fields[first];
    const column = field === undefined ? undefined : table(collection)?.columns.get(first);
    if (field === undefined || column === undefined) return '1 = 0';
    if (further.length === 0) return conditionText(condition, column, alias, bind);
    const target = field.of === undefined ? undefined : table(field.of);
    const key = target?.columns.get(target.keyField);
    if (target === undefined || key === undefined) return '1 = 0';
    const inner = `${alias}x`;
    const holds = onPath(field.of ?? '', further, inner, condition);
    return `${alias}.${column.value} IN (SELECT ${inner}.${key.value} FROM ${target.name} ${inner} WHERE ${holds})`;
  };
  const textOf = (condition: PlannedCondition) => {
    const text = onPath(from, condition.field.split('.'), 'r', condition);
    // What has no value at all is among those for which it does not hold.
    return condition.not === true ? `(${text}) IS NOT TRUE` : text;
  };
  const either = any.map((condition) => `(${textOf(condition)})`).join(' OR ');
  return { texts: [...where.map(textOf), ...(either === '' ? [] : [`(${either})`])], values };
}

function conditionText(
  condition: PlannedCondition,
  { value, folded }: FieldColumn,
  alias: string,
  bind: (value: string | number | boolean) => string,
): string {
  const kept = `${alias}.${value}`;
  const searched = `${alias}.${folded ?? value}`;
  switch (condition.operator) {
    case 'contains':
      return containsCondition(searched, bind(fold(String(condition.value))));
    case 'startsWith': {
      // A span of the index: everything from the text on, before the text with a last character of its own.
      const start = fold(String(condition.value));
      return `${searched} >= ${bind(start)} AND ${searched} < ${bind(`${start}\u{10ffff}`)}`;
    }
    case 'oneOf': {
      const among = `${kept} IN (${condition.value.map(bind).join(', ')})`;
      // Texts have their index on the folded form.
      return folded === undefined
        ? among
        : `${searched} IN (${condition.value.map((one) => bind(fold(String(one)))).join(', ')}) AND ${among}`;
    }
    case 'within': {
      const { from, to } = condition.value;
      return [
        from === undefined ? `${kept} IS NOT NULL` : `${kept} >= ${bind(from)}`,
        ...(to === undefined ? [] : [`${kept} <= ${bind(to)}`]),
      ].join(' AND ');
    }
    case 'before':
    case 'lessThan':
      return `${kept} < ${bind(condition.value)}`;
    case 'after':
    case 'moreThan':
      return `${kept} > ${bind(condition.value)}`;
    case 'atMost':
      return `${kept} <= ${bind(condition.value)}`;
    case 'atLeast':
      return `${kept} >= ${bind(condition.value)}`;
    case 'empty':
      return `${searched} IS ${condition.value ? '' : 'NOT '}NULL`;
    case 'equals':
      return folded === undefined
        ? `${kept} = ${bind(condition.value)}`
        : `${searched} = ${bind(fold(String(condition.value)))} AND ${kept} = ${bind(condition.value)}`;
  }
}

/** One column of an order. */
export interface OrderedColumn {
  column: string;
  direction: 'ASC' | 'DESC';
}

/**
 * The columns that an order goes by, such that one index can be walked: folded texts first, equal ones by the text itself,
 * the key last. What has no value stands at the end, whichever the direction.
 */
export function orderOf(
  shape: RecordTableShape,
  fields: Readonly<Record<string, FieldDefinition>>,
  sort: readonly SortKey[],
): OrderedColumn[] {
  const order: OrderedColumn[] = [];
  const add = (column: string, direction: OrderedColumn['direction']) => {
    if (!order.some((present) => present.column === column)) order.push({ column, direction });
  };
  for (const { field, descending } of sort) {
    const column = Object.hasOwn(fields, field) ? shape.columns.get(field) : undefined;
    if (column === undefined) continue;
    const direction = descending ? 'DESC' : 'ASC';
    if (column.folded !== undefined) add(column.folded, direction);
    add(column.value, direction);
  }
  const key = shape.columns.get(shape.keyField);
  add(key?.value ?? 'id', order[0]?.direction ?? 'ASC');
  return order;
}
