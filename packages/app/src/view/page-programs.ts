import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { walkContent } from '../components/walk-content.ts';
import { conditionsOf, operands } from '../definition/operators.ts';
import { isPlainPath } from '../expressions/evaluator.ts';
import { pageScopeTypes, recordType } from '../expressions/page-scope.ts';
import type { Program, Programs } from '../expressions/program.ts';
import { expressionsOf } from '../expressions/template-text.ts';
import { translate } from '../expressions/translate.ts';

/** An expression of a page, and what it may name beside what the whole page does. */
interface Occurrence {
  expression: string;
  /** The read in whose rows it stands. */
  row?: string | undefined;
  /** The collection of the record that a form has saved. */
  saved?: string | undefined;
}

function occurrencesIn(page: PageDefinition, navigation: AppDefinition['navigation']): Occurrence[] {
  const found: Occurrence[] = [];
  const add = (given: unknown, where: Omit<Occurrence, 'expression'> = {}) => {
    if (typeof given === 'string') found.push(...expressionsOf(given).map((expression) => ({ expression, ...where })));
  };
  const condition = (expression: string | undefined) => {
    if (expression !== undefined) found.push({ expression });
  };
  add(page.title);
  add(page.description);
  for (const { text } of navigation ?? []) add(text);
  for (const { notice } of page.arrival ?? []) add(notice);
  for (const { component, references } of walkContent(page.content)) {
    for (const { text, row } of references.texts) add(text, { row });
    for (const { value, row } of references.values) add(value, { row });
    for (const { link, row, saved } of references.links) for (const value of Object.values(link.values ?? {})) add(value, { row, saved });
    condition(component.when);
  }
  for (const read of Object.values(page.rows ?? {})) {
    condition(read.when);
    for (const value of [
      read.sort,
      read.page,
      read.size,
      ...conditionsOf(read).flatMap(({ condition: asked }) => operands<unknown>(asked)),
    ])
      add(value);
  }
  return found;
}

/** Every expression of a page. */
export const expressionsIn = (page: PageDefinition, navigation: AppDefinition['navigation']): string[] =>
  occurrencesIn(page, navigation).map(({ expression }) => expression);

/**
 * What a page's expressions need to be evaluated: programs, and, where one has none, the CEL engine. An expression that
 * stands in two places is one program only where it means the same in both.
 */
export function programsFor(definition: AppDefinition, page: PageDefinition | undefined): { programs: Programs; cel: boolean } {
  const programs: Record<string, Program> = {};
  const engine = new Set<string>();
  const base = page && pageScopeTypes(definition, page);
  for (const { expression, row, saved } of page ? occurrencesIn(page, definition.navigation) : []) {
    if (isPlainPath(expression) || engine.has(expression)) continue;
    const from = row === undefined ? undefined : page?.rows?.[row]?.from;
    const program = translate(expression, {
      ...base,
      ...(from === undefined ? {} : { row: recordType(definition, from) }),
      ...(saved === undefined ? {} : { saved: recordType(definition, saved, 0) }),
    });
    const present = programs[expression];
    if (program === undefined || (present !== undefined && JSON.stringify(present) !== JSON.stringify(program))) {
      Reflect.deleteProperty(programs, expression);
      engine.add(expression);
    } else programs[expression] = program;
  }
  return { programs, cel: engine.size > 0 };
}
