import { DeclarationError, Refusal } from '../codec.ts';

/** Says so when the limits of a declaration leave nothing in between. */
export function refuseCrossedLimits(least: number | string | undefined, most: number | string | undefined): void {
  if (least === undefined || most === undefined || least <= most) return;
  throw new DeclarationError(
    'min',
    'limits-cross',
    `Nothing is at least ${String(least)} and at most ${String(most)}.`,
    'Make min at most max.',
  );
}

/** A limit of a number type. @throws DeclarationError unless it is such a number */
export function numberLimit(attribute: 'min' | 'max', given: number | string | undefined, whole: boolean): number | undefined {
  if (given === undefined) return undefined;
  if (typeof given === 'number' && (whole ? Number.isSafeInteger(given) : Number.isFinite(given))) return given;
  throw new DeclarationError(attribute, 'bad-limit', `The limit ${JSON.stringify(given)} is not a ${whole ? 'whole ' : ''}number.`);
}

/** Makes the test that both number types share. */
export function limitNumber(least: number | undefined, most: number | undefined): (value: number) => Refusal | undefined {
  refuseCrossedLimits(least, most);
  return (value) => {
    if (least !== undefined && value < least) return new Refusal('too-small', `The number must be at least ${String(least)}.`);
    if (most !== undefined && value > most) return new Refusal('too-large', `The number must be at most ${String(most)}.`);
    return undefined;
  };
}
