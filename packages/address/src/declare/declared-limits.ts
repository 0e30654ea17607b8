import type { ParameterDeclaration } from './declaration.ts';
import { DeclarationError, refuseCrossedLimits } from './declared-type.ts';

/**
 * Checks the limits of a declaration.
 * @param accepts whether a limit is one of the type's values
 * @param what the kind of value in a sentence, such as “a whole number”
 * @throws DeclarationError for a limit that is no such value, and for limits that cross
 */
export function checkLimits(
  { min, max }: Pick<ParameterDeclaration, 'min' | 'max'>,
  accepts: (limit: unknown) => boolean,
  what: string,
): void {
  for (const [attribute, limit] of [
    ['min', min],
    ['max', max],
  ] as const)
    if (limit !== undefined && !accepts(limit))
      throw new DeclarationError(attribute, 'bad-limit', `The limit ${JSON.stringify(limit)} is not ${what}.`);
  refuseCrossedLimits(min, max);
}
