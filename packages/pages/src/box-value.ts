/** What a box holds, as a parameter's value: a number where it is for numbers; undefined while it is empty. */
export function boxValue(box: HTMLInputElement): string | number | undefined {
  if (box.value === '') return undefined;
  return box.type === 'number' ? box.valueAsNumber : box.value;
}
