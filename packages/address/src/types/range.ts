import { DeclarationError, type DeclaredType } from '../declare/declared-type.ts';
import { joinEnds } from '../joins.ts';
import { corrected, correction, refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made, type Parameter, type ValueOf } from '../parameter.ts';
import { decode, encode } from '../percent.ts';
import { mayBreak } from '../travel.ts';
import type { Range } from '../values.ts';
import { remember } from './separated.ts';

type EndOf<End> = ValueOf<End> extends number | string ? ValueOf<End> : never;

/**
 * From one end to the other, both included, written `from..to`; `from..` and `..to` have an open end.
 * @param end `integer()`, `number()` or `date()`, with the limits of both ends
 */
export function range<const End extends Parameter<number | string>, const Options extends CommonOptions<Range<EndOf<End>>> = object>(
  end: End,
  options?: Exactly<Options, CommonOptions<Range<EndOf<End>>>>,
): Made<Range<EndOf<End>>, Options> {
  type Value = Range<EndOf<End>>;
  const read = (source: string, start: number, stop: number): Value | undefined => {
    let dots = source.indexOf('..', start);
    if (dots < 0 || dots >= stop) dots = stop;
    const from = start === dots ? undefined : end.read(source, start, dots);
    if (from === undefined && start !== dots) return undefined;
    // One value alone is the range from it to itself.
    if (dots === stop) return from === undefined ? refuse('empty-range') : corrected({ from, to: from } as Value);
    dots += 2;
    const to = dots === stop ? undefined : end.read(source, dots, stop);
    if (to === undefined) return dots !== stop ? undefined : from === undefined ? refuse('empty-range') : ({ from } as Value);
    if (from === undefined) return { to } as Value;
    return from > to ? refuse('range-reversed') : ({ from, to } as Value);
  };
  return parameter<Value, never, never>(
    'range',
    options,
    remember((source, from, to) => {
      if (to - from > 900) return refuse('too-long');
      const value = read(source, from, to);
      if (value !== undefined && correction === 0) return value;
      // The dots may be encoded, and blanks stand around the whole.
      const text = decode(source, from, to)?.trim();
      if (text === undefined || !/[%+]/.test(source.slice(from, to))) return value;
      const dots = text.indexOf('..');
      const tidy = dots < 0 ? encode(text) : encode(text.slice(0, dots)) + '..' + encode(text.slice(dots + 2));
      return corrected(read(tidy, 0, tidy.length));
    }),
    (value) => {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return refuse('not-a-range');
      for (const key in value) if (key !== 'from' && key !== 'to') return refuse('not-a-range');
      const { from, to } = value as Range;
      if (from === undefined && to === undefined) return refuse('empty-range');
      if (from !== undefined && to !== undefined && from > to) return refuse('range-reversed');
      const first = from === undefined ? '' : end.write(from);
      const last = to === undefined ? '' : end.write(to);
      if (first === undefined || last === undefined) return undefined;
      if (!(last > '.')) mayBreak();
      return first + '..' + last;
    },
    { joins: joinEnds, of: end },
  );
}

/** What a range in an app file can be of. */
export const rangeTypeNames = ['integer', 'number', 'date'] as const;

/** `type: range` in an app file: `of` names the type of its ends. */
export const declaredRange: DeclaredType = {
  attributes: ['of', 'min', 'max'],
  inLists: false,
  make(declaration, compileContext) {
    const { of, min, max } = declaration;
    const type = rangeTypeNames.includes(of as never) ? compileContext.types[of ?? ''] : undefined;
    if (of === undefined || type === undefined) {
      const given = of === undefined ? 'nothing' : `“${of}”`;
      throw new DeclarationError('of', 'range-of', `A range cannot be of ${given}.`, `It can be of: ${rangeTypeNames.join(', ')}.`);
    }
    const end = type.make({ type: of, min, max }, compileContext) as Parameter<number | string>;
    return range(end, declaration as CommonOptions<Range>);
  },
};
