import type { Values } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-schema.ts';
import { Evaluator } from '../expressions/evaluator.ts';
import { evaluateCel } from '../expressions/cel.ts';
import { appScopeTypes } from '../expressions/page-scope.ts';
import { languageOf, scopeBeforeLoad } from './load-plan.ts';
import { wordsIn } from './words.ts';

/** A text of the app that stands on no page: it may name the app and its words, in the language of an address. */
export function appText(app: AppDefinition, text: string, values: Values): string {
  const { app: named } = scopeBeforeLoad(app, values, { today: '', visit: {} });
  return new Evaluator({ app: named, word: wordsIn(app.words, languageOf(app, values)) }, appScopeTypes, evaluateCel).text(text);
}
