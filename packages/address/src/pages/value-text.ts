import type { ParameterValue } from '../declare/declaration.ts';
import { joinItems } from '../joins.ts';
import { refusalCode, refusalData, refuse } from '../outcome.ts';
import type { Parameter } from '../parameter.ts';
import { decodeForShow, encode } from '../percent.ts';
import { sentenceOf, type Sentences } from '../sentences/index.ts';

/** Why a text or a value is not accepted: a stable code and a sentence that a visitor understands. */
export class Refusal {
  readonly code: string;
  readonly message: string;
  /** What its sentence needs: a limit, or the values that there are. */
  readonly data: unknown;

  constructor(code: string, message: string, data?: unknown) {
    this.code = code;
    this.message = message;
    this.data = data;
  }
}

/** A refusal in another language; its own sentence where the language does not have the code. */
export const refusalIn = ({ code, message, data }: Refusal, sentences: Sentences | undefined): string =>
  sentences?.[code]?.(data as never) ?? message;

/** The refusal of the text or value that was read or written last. */
export const lastRefusal = (): Refusal => new Refusal(refusalCode, sentenceOf(refusalCode, refusalData), refusalData);

/** Reads a text that comes from outside an address, for example from a form. Commas separate the items of a list. */
export function readPlainText(parameter: Parameter, text: string): ParameterValue | Refusal {
  if (!text.isWellFormed()) {
    refuse('forbidden-character');
    return lastRefusal();
  }
  const encoded =
    parameter.joins === joinItems
      ? text
          .split(',')
          .map((item) => encode(item.trim()))
          .join(',')
      : encode(text);
  return (parameter.read(encoded, 0, encoded.length) as ParameterValue | undefined) ?? lastRefusal();
}

/** The written form of a value, for showing it outside of an address. */
export function writePlainText(parameter: Parameter, value: unknown): string | Refusal {
  const text = parameter.write(value);
  return text === undefined ? lastRefusal() : decodeForShow(text);
}

/** Reads what a person or the app file wrote for a value: the value itself, or its text. */
export function valueFrom(given: unknown, parameter: Parameter): ParameterValue | Refusal {
  if (typeof given === 'string') {
    if (given === '' && !parameter.blank) return new Refusal('blank', sentenceOf('blank'));
    const value = readPlainText(parameter, given);
    // A packed text may itself be the value.
    return value instanceof Refusal && parameter.write(given) !== undefined ? given : value;
  }
  return parameter.write(given) === undefined ? lastRefusal() : (given as ParameterValue);
}
