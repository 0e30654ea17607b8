import type { Parameter } from './parameter.ts';
import { encode } from './percent.ts';
import { beginWriting, fragile } from './travel.ts';

/**
 * A place for a parameter in a page's address, and what stands in it while the address is read or written: reading and
 * writing are synchronous, and this costs less than new objects would.
 */
export interface Slot {
  readonly name: string;
  /** Where it stands among the page's slots. */
  readonly index: number;
  readonly parameter: Parameter;
  readonly read: Parameter['read'];
  readonly write: Parameter['write'];
  readonly inPath: boolean;
  /** A list whose items an address repeats (`*`) rather than joins. */
  readonly repeated: boolean;
  readonly required: boolean;
  /** A wrong value refuses the page; otherwise the default takes its place. */
  readonly refuses: boolean;
  /** The default where it is the same on each day, and its text, which an address leaves out. */
  readonly fixed: unknown;
  readonly fixedText: string | undefined;
  /** The default where it is not. */
  readonly changing: (() => unknown) | undefined;
  /** What stands before it in the path: literal segments and a “/”. */
  readonly lead: string;
  /** The read or write that the following are of. */
  turn: number;
  /** Where its text stands in the address. */
  from: number;
  to: number;
  /** What is unusual about its text. */
  odd: OddText | undefined;
}

/** A text that does not stand in the address as it is to be read. */
export interface OddText {
  /** The text to read; where the address has it when missing. */
  source?: string;
  /** The text as the address has it, where `source` had to be brought into another form. */
  raw?: string;
  /** Every text of a parameter that the address gives more than once. */
  several?: string[];
  /** Given by a former name. */
  renamed?: true;
}

/** One page's addresses. Made by `page`. */
export interface Template {
  /** The path up to its first parameter, without a “/” at the end; and how many segments that are. */
  readonly prefix: string;
  readonly literals: number;
  /** The path where it has no segment: “/”; nothing where the template has no path, and any will do. */
  readonly root: string;
  /** The path from its last parameter on. */
  readonly tail: string;
  /** Literal segments, and the slots of path parameters. */
  readonly segments: readonly (string | Slot)[];
  /** Whether the last segment may be missing. */
  readonly optional: boolean;
  /** The slots of path parameters first, then the query's in written order. */
  readonly slots: readonly Slot[];
  /** How many of them are in the path. */
  readonly inPath: number;
  /** By name; those of the query by their former names too; and by all of them in small letters. */
  readonly byName: ReadonlyMap<string, Slot>;
  /** Whether its own texts may have what programs take for the end of an address. */
  readonly fragile: boolean;
  /** Every name with its default, or `undefined`. */
  readonly absent: Readonly<Record<string, unknown>>;
}

/** A default as readings give it out, again and again: nobody's changes reach it. */
const frozenCopy = (given: unknown): unknown =>
  Array.isArray(given)
    ? Object.freeze([...(given as unknown[])])
    : typeof given === 'object' && given !== null
      ? Object.freeze({ ...given })
      : given;

/**
 * Takes an address template apart (the subset of RFC 6570 that the guide describes) and makes its slots.
 * @param mount what stands before the path: `/garden`, or nothing
 */
export function makeTemplate(address: string, parameters: Readonly<Record<string, Parameter>>, mount = ''): Template {
  const slots: Slot[] = [];
  const segments: (string | Slot)[] = [];
  const byName = new Map<string, Slot>();
  const absent: Record<string, unknown> = {};
  // Encoding notes whether what stands in every address may be taken for its end.
  beginWriting(false);
  encode(mount);
  let lead = mount;
  let inPath = 0;
  let prefix: string | undefined;
  let literals: number | undefined;
  const add = (name: string, segment: boolean, optional: boolean, repeated: boolean): Slot => {
    const parameter = parameters[name];
    if (parameter === undefined) throw new TypeError(`${address}: ${name}?`);
    const { default: given, required, ifWrong } = parameter.options;
    const changing = typeof given === 'function' ? (given as () => unknown) : undefined;
    const fixed = changing === undefined ? frozenCopy(given) : undefined;
    const slot: Slot = {
      name,
      index: slots.length,
      parameter,
      read: parameter.read,
      write: parameter.write,
      inPath: segment,
      repeated,
      required: !optional || (required === true && given === undefined),
      refuses: !optional || ifWrong === 'refuse',
      fixed,
      fixedText: fixed === undefined ? undefined : parameter.write(fixed),
      changing,
      lead: segment ? lead + '/' : `&${encode(name)}=`,
      turn: 0,
      from: 0,
      to: 0,
      odd: undefined,
    };
    slots.push(slot);
    byName.set(name, slot);
    absent[name] = fixed;
    return slot;
  };
  for (const [, literal, kind, names = ''] of address.matchAll(/\/([^/{]+)|\/?\{([/?]?)(.*?)\}/g)) {
    if (literal !== undefined) {
      encode(literal);
      lead += '/' + literal;
      segments.push(literal);
    } else if (kind === '?') for (const name of names.split(',')) add(name.replace('*', ''), false, true, name.endsWith('*'));
    else {
      inPath++;
      prefix ??= lead;
      literals ??= segments.length;
      segments.push(add(names, true, kind === '/', false));
      lead = '';
    }
  }
  const also = (name: string, slot: Slot) => byName.has(name) || byName.set(name, slot);
  for (const slot of slots) if (!slot.inPath) for (const former of slot.parameter.options.formerNames ?? []) also(former, slot);
  for (const [name, slot] of byName) also(name.toLowerCase(), slot);
  return {
    prefix: prefix ?? lead,
    literals: literals ?? segments.length,
    root: /^(?:\{\?|$)/.test(address) ? '' : '/',
    tail: lead,
    segments,
    optional: address.includes('{/'),
    slots,
    inPath,
    byName,
    fragile,
    absent,
  };
}
