import { Optional } from '@marcbachmann/cel-js';
import type { CelFunction } from './kind.ts';

const mostItems = 10_000;

/** Equal as CEL has it for plain values: an integer and a double of the same number are the same. */
function same(one: unknown, other: unknown): boolean {
  if (isNumber(one) && isNumber(other)) return Number(one) === Number(other);
  if (Array.isArray(one) && Array.isArray(other))
    return one.length === other.length && one.every((item, index) => same(item, other[index]));
  return one === other;
}

const isNumber = (value: unknown) => typeof value === 'bigint' || typeof value === 'number';

function compare(one: unknown, other: unknown): number {
  if (isNumber(one) && isNumber(other)) return Number(one) - Number(other);
  if (typeof one !== typeof other || !['string', 'boolean'].includes(typeof one)) throw new TypeError('The items cannot be compared.');
  return one === other ? 0 : (one as string) < (other as string) ? -1 : 1;
}

function distinct(items: unknown[]): unknown[] {
  const plain = new Set<unknown>();
  const others: unknown[] = [];
  return items.filter((item) => {
    const key = typeof item === 'bigint' ? Number(item) : item;
    if (typeof key !== 'object') return plain.has(key) ? false : plain.add(key);
    return others.some((known) => same(known, item)) ? false : others.push(item);
  });
}

/** The list extension of CEL, as far as the engine does not have it, and what lists in addresses need. */
export const listFunctions: readonly CelFunction[] = [
  {
    name: 'compact',
    signatures: ['list.compact(): list'],
    sentence: 'The list without what is absent or empty, so that one missing answer does not lose the others.',
    example: ["['QM-0412', '', optional.none(), optional.of('QM-0007')].compact()", ['QM-0412', 'QM-0007']],
    run: (items: unknown[]) =>
      items
        .map((item): unknown => (item instanceof Optional ? (item.hasValue() ? item.value() : undefined) : item))
        .filter((item) => item !== undefined && item !== null && item !== ''),
  },
  {
    name: 'distinct',
    signatures: ['list.distinct(): list'],
    sentence: 'The list with each value once, in the order of their first occurrence.',
    example: ["['moss', 'fern', 'moss'].distinct()", ['moss', 'fern']],
    run: distinct,
  },
  {
    name: 'sort',
    signatures: ['list.sort(): list'],
    sentence: 'The list in ascending order; its items are all numbers, or all texts.',
    example: ['[3, 1, 2].sort()', [1, 2, 3]],
    run: (items: unknown[]) => [...items].sort(compare),
  },
  {
    name: 'reverse',
    signatures: ['list.reverse(): list'],
    sentence: 'The list from its end to its beginning.',
    example: ['[1, 2, 3].reverse()', [3, 2, 1]],
    run: (items: unknown[]) => [...items].reverse(),
  },
  {
    name: 'slice',
    signatures: ['list.slice(int, int): list'],
    sentence: 'The items from one position to before another, from 0.',
    example: ["['a', 'b', 'c'].slice(0, 2)", ['a', 'b']],
    run(items: unknown[], from: bigint, to: bigint) {
      if (from < 0n || to > items.length || from > to) throw new RangeError('There is no such part.');
      return items.slice(Number(from), Number(to));
    },
  },
  {
    name: 'flatten',
    signatures: ['list.flatten(): list'],
    sentence: 'The items of the lists in a list as one list.',
    example: ['[[1, 2], [3]].flatten()', [1, 2, 3]],
    run: (items: unknown[]) => items.flat(),
  },
  {
    name: 'first',
    signatures: ['list.first(): optional'],
    sentence: 'The first item, if there is one.',
    example: ["['a', 'b'].first().orValue('none')", 'a'],
    run: (items: unknown[]) => (items.length === 0 ? Optional.none() : Optional.of(items[0])),
  },
  {
    name: 'last',
    signatures: ['list.last(): optional'],
    sentence: 'The last item, if there is one.',
    example: ["[].last().orValue('none')", 'none'],
    run: (items: unknown[]) => (items.length === 0 ? Optional.none() : Optional.of(items.at(-1))),
  },
  {
    name: 'range',
    signatures: ['lists.range(int): list<int>'],
    sentence: 'The whole numbers from 0 to before a number.',
    example: ['lists.range(3)', [0, 1, 2]],
    run(_: unknown, count: bigint) {
      if (count < 0n || count > mostItems) throw new RangeError('The list would be too long.');
      return Array.from({ length: Number(count) }, (__, index) => BigInt(index));
    },
  },
  {
    name: 'sum',
    signatures: ['list.sum(): dyn'],
    sentence: 'The sum of the numbers of a list; 0 for an empty one.',
    example: ['[1, 2, 3].sum()', 6],
    run: (items: unknown[]) =>
      items.every((item) => typeof item === 'bigint')
        ? items.reduce((sum, item) => sum + item, 0n)
        : items.reduce<number>((sum, item) => {
            if (!isNumber(item)) throw new TypeError('An item is no number.');
            return sum + Number(item);
          }, 0),
  },
];
