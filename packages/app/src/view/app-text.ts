import type { Values } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';
import { Evaluator } from '../expressions/evaluator.ts';
import { evaluateCel } from '../expressions/cel.ts';
import { appScopeTypes } from '../expressions/page-scope.ts';
import { languageOf, scopeBeforeLoad } from './load-plan.ts';
import { wordsIn } from './words.ts';

/** Fills in the texts of an app that stand on no page: they may name the app and its words, in the language of an address. */
export function appTexts(app: AppDefinition, values: Values): (text: string) => string {
  let evaluator: Evaluator | undefined;
  return (text) => {
    // Most texts are as they stand.
    if (!/[{}]/.test(text)) return text;
    const { app: named } = scopeBeforeLoad(app, values, { today: '', visit: {} });
    evaluator ??= new Evaluator({ app: named, word: wordsIn(app.words, languageOf(app, values)) }, appScopeTypes, evaluateCel);
    return evaluator.text(text);
  };
}
