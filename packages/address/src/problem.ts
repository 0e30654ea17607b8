import { PallmistError } from './error.ts';

/**
 * Something wrong with an address or with values for one. Its sentence is looked up by the code, in
 * `@pallmist/address/sentences`.
 */
export interface AddressProblem {
  /** Stable, in lower case with dashes. */
  readonly code: string;
  /** An `error` refuses the page; after a `warning` the default stands in the value's place. */
  readonly severity: 'error' | 'warning' | 'note';
  /** The name of the parameter concerned. */
  readonly parameter?: string | undefined;
  /** What its sentence needs: a limit, the values that there are. */
  readonly data?: unknown;
}

export const noProblems: readonly AddressProblem[] = [];

/** Thrown where an address cannot be written with the values that were given. */
export class AddressError extends PallmistError {
  readonly code = 'not-written';
  readonly problems: readonly AddressProblem[];

  constructor(problems: readonly AddressProblem[]) {
    super(problems.map(({ code, parameter }) => [code, parameter].join(' ')).join());
    this.problems = problems;
  }
}
