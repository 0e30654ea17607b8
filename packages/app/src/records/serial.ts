import type { FieldDefinition } from '../definition/app-definition.ts';
import { Refusal } from '@pallmist/address/pages';
import { fieldReader } from './field-value.ts';

/** The parts of a serial number's form: `N-0000` is “N-” and four digits. */
export function serialParts(form: string): { beginning: string; digits: number } {
  const digits = /0+$/.exec(form)?.[0].length ?? 1;
  return { beginning: form.slice(0, form.length - digits), digits };
}

/**
 * The serial number after the greatest one there is.
 * @param greatest undefined where there is none yet
 */
export function nextSerial(form: string, greatest: string | undefined): string {
  const { beginning, digits } = serialParts(form);
  const last = greatest === undefined ? 0 : Number(greatest.slice(beginning.length));
  return beginning + String((Number.isSafeInteger(last) ? last : 0) + 1).padStart(digits, '0');
}

/** Why a field refuses a number of its own; undefined where it takes it, or where its pattern is reported by itself. */
export function serialProblem(field: FieldDefinition, number: string): string | undefined {
  try {
    const read = fieldReader({}, field)(number);
    return read instanceof Refusal ? read.message : undefined;
  } catch {
    return undefined;
  }
}
