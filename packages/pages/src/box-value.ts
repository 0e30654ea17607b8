import type { BoxLimits } from '@pallmist/app/view';

/** The attributes of a box, as HTML has them. */
export const boxAttributes = ({ kind, min, max, step, maxLength }: BoxLimits) => ({ type: kind, min, max, step, maxlength: maxLength });

/** What a box holds, as a parameter's value: a number where it is for numbers; undefined while it is empty. */
export function boxValue(box: HTMLInputElement): string | number | undefined {
  if (box.value === '') return undefined;
  return box.type === 'number' ? box.valueAsNumber : box.value;
}
