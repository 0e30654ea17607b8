import type { Evaluator } from '../../expressions/evaluator.ts';

type Setting = string | number | undefined;

/** A setting that is one of some words; what its expression gives otherwise counts as left out. */
export function wordSetting<Word extends string>(given: Setting, words: readonly Word[], evaluator: Evaluator): Word | undefined {
  const value = settle(given, evaluator);
  return words.find((word) => word === value);
}

/** A setting that is a whole number; what its expression gives is kept within the limits. */
export function numberSetting(given: Setting, min: number, max: number, evaluator: Evaluator): number | undefined {
  const value = settle(given, evaluator);
  return typeof value === 'number' && Number.isFinite(value) ? Math.min(max, Math.max(min, Math.round(value))) : undefined;
}

const settle = (given: Setting, evaluator: Evaluator): unknown => (given === undefined ? undefined : evaluator.value(given));
