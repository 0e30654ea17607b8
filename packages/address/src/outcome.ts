/**
 * How the text or value at hand was taken. Reading and writing are synchronous, so a few variables say it: an object for
 * each value would cost more than reading the value does.
 */

/** The code of the refusal; read it where a type gave `undefined`. */
export let refusalCode = '';
/** What its sentence needs: a limit, or the values that there are. */
export let refusalData: unknown;
/** 0: the text is in the one written form. 1: it was understood all the same. 2: it was right in the past. */
export let correction: 0 | 1 | 2 = 0;

/** Whether a list may leave out the items that are wrong. */
export let sifts = false;

export function sift(on: boolean): void {
  sifts = on;
}

/** Refuses a text or a value. @returns undefined, which is what a type gives for it */
export function refuse(code: string, data?: unknown): undefined {
  refusalCode = code;
  refusalData = data;
}

/** Notes that a text was understood although it is not in the written form. @returns the value */
export function corrected<Value>(value: Value, former = false): Value {
  correction = former ? 2 : correction || 1;
  return value;
}

export function beginValue(): void {
  correction = 0;
}
