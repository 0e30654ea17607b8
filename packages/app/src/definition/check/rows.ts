import { toPointer, withArticle } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { figureOf, figureTypes } from '../figures.ts';
import { conditionsOf, operators } from '../operators.ts';
import { checkFieldPath } from '../../components/shared/check-field-path.ts';
import type { PageDefinition, ReadDefinition } from '../app-definition.ts';
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
    for (const { key, index, condition } of conditionsOf(read)) {
      const where = [...at, key, index];
      if (collection) checkFieldPath(context, [...where, 'field'], condition.field, read.from);
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
    checkFigures(context, at, read);
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
    if (typeof read.size === 'number' && !(Number.isInteger(read.size) && read.size >= 1 && read.size <= 500))
      report(context, [...at, 'size'], {
        code: 'too-large',
        message: `A page of a list has from 1 to 500 records, not ${String(read.size)}.`,
        hint: 'Give it a size in between, and a pager.',
        fix: [{ op: 'replace', path: toPointer([...at, 'size']), value: 500 }],
      });
    if (read.page !== undefined) scope.value([...at, 'page'], read.page);
  }
}

/** Figures are of fields that are there, and of kinds that can be added up or compared. */
function checkFigures(context: CheckContext, at: Place, { figures, from }: ReadDefinition): void {
  for (const [name, figure] of Object.entries(figures ?? {})) {
    const { of, field } = figureOf(figure);
    const place = [...at, 'figures', name, of];
    const declared = context.definition.collections?.[from]?.fields[field];
    checkFieldPath(context, place, field, from);
    const fitting = figureTypes[of];
    if (declared === undefined || fitting === undefined || fitting.includes(declared.type)) continue;
    report(context, place, {
      code: 'figure-wrong-type',
      message: `“${field}” is ${withArticle(declared.type)}, of which there is no ${of}.`,
      hint: `Name a field that is ${fitting.map(withArticle).join(' or ')}.`,
    });
  }
}
