import type { DeclaredTypes } from '@pallmist/address/declare';
import type { Seals } from '@pallmist/address/pages';
import type { EvaluateCel } from '../expressions/evaluator.ts';
import type { PhraseTable } from '../languages/say.ts';
import type { ShowTable } from './view-context.ts';

/** What showing a page needs beyond its payload. A browser brings only what the page makes use of. */
export interface ShowTools {
  /** Evaluates the expressions that do more than follow fields. */
  cel: EvaluateCel;
  types: DeclaredTypes;
  /** How each kind of component is shown; one that is missing shows nothing. */
  shows: ShowTable;
  /** Pallmist's own texts in other languages; a page in English goes without. */
  phrases?: PhraseTable | undefined;
  /** Where the key is: notes down what has to be sealed for the page's links. */
  seals?: Seals;
}
