import { quote } from '@pallmist/address/declare';
import { appScopeTypes } from '../../expressions/page-scope.ts';
import type { ScopeTypes } from '../../expressions/evaluator.ts';
import type { AppDefinition } from '../app-definition.ts';
import { declaredParameters } from '../declared-parameters.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { ScopeCheck } from './expressions.ts';

/** What the texts may name that stand on no page: the app, and its words. */
export const wordScope = ({ words = {} }: AppDefinition): ScopeTypes => ({
  ...appScopeTypes,
  word: { fields: Object.fromEntries(Object.keys(words).map((name) => [name, 'string' as const])) },
});

/** The texts that stand on no page make sense: the title, labels and helps of choices, fields and parameters, reasons of gates. */
export function checkTextsInWords(context: CheckContext): void {
  const { definition } = context;
  const scope = new ScopeCheck(context, wordScope(definition));
  const text = (place: Place, given: string | undefined) => {
    if (given?.includes('{')) scope.text(place, given);
  };
  text(['title'], definition.title);
  for (const [list, choices] of Object.entries(definition.choices ?? {}))
    for (const [value, choice] of Object.entries(choices))
      if (typeof choice === 'string') text(['choices', list, value], choice);
      else text(['choices', list, value, 'label'], choice.label);
  for (const [name, { fields }] of Object.entries(definition.collections ?? {}))
    for (const [field, { label, help }] of Object.entries(fields)) {
      text(['collections', name, 'fields', field, 'label'], label);
      text(['collections', name, 'fields', field, 'help'], help);
    }
  for (const { place, declaration } of declaredParameters(definition)) {
    text([...place, 'label'], declaration.label);
    text([...place, 'help'], declaration.help);
    for (const [value, { reason }] of Object.entries(declaration.goneValues ?? {})) text([...place, 'goneValues', value, 'reason'], reason);
  }
  for (const [name, { reason }] of Object.entries(definition.gates ?? {})) text(['gates', name, 'reason'], reason);
  for (const [name, { admit }] of Object.entries(definition.pages))
    if (typeof admit === 'object') text(['pages', name, 'admit', 'reason'], admit.reason);
  for (const [name, { group }] of Object.entries(definition.pages)) plain(context, ['pages', name, 'group'], group);
  for (const [word, texts] of Object.entries(definition.words ?? {}))
    for (const [language, given] of Object.entries(texts)) plain(context, ['words', word, language], given);
}

/** A text in which nothing is filled in. */
function plain(context: CheckContext, place: Place, given: string | undefined): void {
  const [braces] = /\{[^{}]+\}/.exec(given ?? '') ?? [];
  if (braces === undefined) return;
  report(context, place, {
    code: 'braces-without-effect',
    severity: 'warning',
    message: `Pallmist fills in no expressions here, so ${quote(braces, 60)} stays as it is.`,
    hint: 'Write the text without braces, or put the expression into the text of the page.',
  });
}
