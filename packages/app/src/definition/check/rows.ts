import { toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { operators } from '../operators.ts';
import type { PageDefinition } from '../app-schema.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { fixName } from './fix-name.ts';
import type { ScopeCheck } from './expressions.ts';

/** A page's reads: their collection and fields are there, their values can be evaluated. */
export function checkRows(context: CheckContext, place: Place, page: PageDefinition, scope: ScopeCheck): void {
  const { collections = {} } = context.definition;
  for (const [name, read] of Object.entries(page.rows ?? {})) {
    const at = [...place, 'rows', name];
    const collection = collections[read.from];
    if (collection === undefined) {
      report(context, [...at, 'from'], {
        code: 'unknown-collection',
        message: `There is no collection “${read.from}”.`,
        hint: suggest(read.from, Object.keys(collections)),
        ...fixName([...at, 'from'], read.from, Object.keys(collections)),
      });
    }
    for (const [index, condition] of (read.where ?? []).entries()) {
      const where = [...at, 'where', index];
      if (collection && !Object.hasOwn(collection.fields, condition.field)) {
        report(context, [...where, 'field'], {
          code: 'unknown-field',
          message: `The collection “${read.from}” has no field “${condition.field}”.`,
          hint: suggest(condition.field, Object.keys(collection.fields)),
          ...fixName([...where, 'field'], condition.field, Object.keys(collection.fields)),
        });
      }
      const given = operators.filter((operator) => condition[operator] !== undefined);
      if (given.length !== 1) {
        report(context, where, {
          code: 'one-operator',
          message: `The condition on “${condition.field}” has ${given.length === 0 ? 'no operator' : `the operators ${given.join(' and ')}`}.`,
          hint: `Give one of: ${operators.join(', ')}.`,
          ...(given[1] === undefined ? {} : { fix: [{ op: 'remove' as const, path: toPointer([...where, given[1]]) }] }),
        });
      }
      for (const operator of given) scope.value([...where, operator], condition[operator] ?? '');
    }
    if (read.sort !== undefined) {
      scope.value([...at, 'sort'], read.sort);
      if (collection && typeof read.sort === 'string' && !read.sort.includes('{')) {
        for (const key of read.sort.split(',').map((text) => text.trim().replace(/^-/, ''))) {
          if (Object.hasOwn(collection.fields, key)) continue;
          report(context, [...at, 'sort'], {
            code: 'unknown-field',
            message: `The collection “${read.from}” has no field “${key}” to sort by.`,
            hint: suggest(key, Object.keys(collection.fields)),
          });
        }
      }
    }
    if (read.when !== undefined) scope.condition([...at, 'when'], read.when);
    if (read.size !== undefined) scope.value([...at, 'size'], read.size);
    if (read.page !== undefined) scope.value([...at, 'page'], read.page);
  }
}
