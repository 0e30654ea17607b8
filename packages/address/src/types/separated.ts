import { corrected, correction, refuse, sifts } from '../outcome.ts';
import { standsAt } from '../percent.ts';
import type { Parameter } from '../parameter.ts';

/** Most texts between commas that are looked at, whatever a declaration says. */
export const mostItems = 500;

/**
 * Reads items that stand with commas between them; each is encoded on its own, so that it may hold a comma. One that is wrong
 * refuses them all, unless the list is sifted.
 * @param repeats whether an item may stand there twice; where not, it is left out the second time
 * @param most beyond so many it is refused, with `too-many`
 * @param commaFree whether no item can hold a comma: then one that was encoded still stands between two items
 */
export function readItems<Item>(
  item: Parameter<Item>['read'],
  source: string,
  from: number,
  to: number,
  repeats: boolean,
  most: number,
  commaFree: boolean,
): Item[] | undefined {
  const escape = commaFree ? source.indexOf('%', from) : -1;
  if (escape >= 0 && escape < to) {
    const text = source.slice(from, to).replace(/%2c/gi, ',');
    if (text.length < to - from) corrected(0);
    return readItems(item, text, 0, text.length, repeats, most, false);
  }
  const items: Item[] = [];
  if (from === to) return items;
  for (let start = from; start <= to;) {
    let end = source.indexOf(',', start);
    if (end < 0 || end > to) end = to;
    if (start === end) corrected(0);
    else {
      if (items.length === mostItems) return refuse('too-many', most);
      const value = item(source, start, end);
      if (value === undefined && !sifts) return undefined;
      if (value === undefined || (!repeats && items.includes(value))) corrected(0);
      else items.push(value);
    }
    start = end + 1;
  }
  // Where nothing is right, there is no list.
  return sifts && items.length === 0 ? undefined : items;
}

/** Freezes a list, a range or a sort order. */
export function freeze<Value>(value: Value): Value {
  if (Array.isArray(value)) value.forEach(freeze);
  return Object.freeze(value);
}

/**
 * Keeps the last text and its value, and returns the same object for the same text. Code that compares by identity then sees
 * no change. The value is frozen, with what it holds: nobody's changes reach later readings.
 */
export function remember<Value>(read: Parameter<Value>['read']): Parameter<Value>['read'] {
  let text: string | undefined;
  let value: Value | undefined;
  return (source, from, to) => {
    if (text !== undefined && text.length === to - from && standsAt(source, from, text)) return value;
    const fresh = freeze(read(source, from, to));
    if (fresh !== undefined && correction === 0) {
      text = source.slice(from, to);
      value = fresh;
    }
    return fresh;
  };
}
