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
