import type { AppDefinition } from '../../../definition/app-definition.ts';
import type { Found } from '../promised-page.ts';
import { movedApp, movedPage, pageGone, pagePutBack, renamedPage } from './page-repairs.ts';
import { newLinksOnly, notRequired, parameterPutBack, renamedParameter } from './parameter-repairs.ts';
import type { Repair } from './repair.ts';
import { formerChoice, formerKey } from './value-repairs.ts';

/** Repairs that may help against a difference, the best first; whether one does, comparing again shows. */
export function possibleRepairs(found: Found, today: AppDefinition, formerly: AppDefinition | undefined): Repair[] {
  const { kind } = found;
  if (kind === 'app-moved') return movedApp(found, today);
  if (kind === 'no-page') return [...movedPage(found, today), ...pageGone(found, today), ...pagePutBack(found, today, formerly)];
  if (kind === 'other-page') return [...renamedPage(found, today), ...movedPage(found, today), ...pagePutBack(found, today, formerly)];
  if (found.parameter === undefined) return [];
  if (kind === 'missing-value') return notRequired(found, today);
  if (kind === 'tied') return parameterPutBack(found, today, ['tied']);
  if (kind === 'value-ignored') return [...renamedParameter(found, today), ...parameterPutBack(found, today)];
  if (kind === 'value-refused')
    return [
      ...formerChoice(found, today, formerly),
      ...formerKey(found, today),
      ...parameterPutBack(found, today, limits),
      ...parameterPutBack(found, today),
    ];
  if (kind === 'other-records') return [...formerKey(found, today), ...parameterPutBack(found, today)];
  if (kind === 'other-default') return [...newLinksOnly(found, today), ...parameterPutBack(found, today, ['default', 'inNewLinks'])];
  return parameterPutBack(found, today);
}

const limits = [
  'min',
  'max',
  'minLength',
  'maxLength',
  'pattern',
  'minItems',
  'maxItems',
  'unique',
  'fields',
  'blank',
  'required',
  'items',
  'schema',
] as const;
