import type { ChoiceDefinition } from '@pallmist/address';
import type { DeclaredTypes } from '@pallmist/address/declare';
import type { Seals } from '@pallmist/address/pages';
import type { EvaluateCel } from '../expressions/evaluator.ts';
import type { FormParts } from './form-parts.ts';

/** What showing a page needs beyond its material. A browser brings only what the page makes use of. */
export interface ShowTools {
  /** Evaluates the expressions that do more than follow fields. */
  cel: EvaluateCel;
  types: DeclaredTypes;
  /** Shows forms; a page without any can do without. */
  forms?: FormParts | undefined;
  /** Where the key is: notes down what has to be sealed for the page's links. */
  seals?: Seals;
}

/** A choice as people read it. */
export const choiceLabel = (definition: ChoiceDefinition): string => (typeof definition === 'string' ? definition : definition.label);
