import type { Parameter } from './parameter.ts';

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
  /** Every name with its default, or `undefined`. */
  readonly absent: Readonly<Record<string, unknown>>;
}

/**
 * Takes an address template apart (the subset of RFC 6570 that the guide describes) and makes its slots.
 * @param mount what stands before the path: `/garden`, or nothing
 */
export function makeTemplate(address: string, parameters: Readonly<Record<string, Parameter>>, mount = ''): Template {
  const slots: Slot[] = [];
  const byName = new Map<string, Slot>();
  const absent: Record<string, unknown> = {};
  const add = (name: string, inPath: boolean, optional: boolean, repeated: boolean, lead: string): Slot => {
    const parameter = parameters[name];
    if (parameter === undefined) throw new TypeError(`${address}: ${name}?`);
    const { default: given, required, ifWrong } = parameter.options;
    const changing = typeof given === 'function' ? (given as () => unknown) : undefined;
    const fixed = changing === undefined ? given : undefined;
    const slot: Slot = {
      name,
      index: slots.length,
      parameter,
      read: parameter.read,
      write: parameter.write,
      inPath,
      repeated,
      required: !optional || (required === true && given === undefined),
      refuses: !optional || ifWrong === 'refuse',
      fixed,
      fixedText: fixed === undefined ? undefined : parameter.write(fixed),
      changing,
      lead,
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
  const [, path = '', last, query] = /^([^{]*(?:\{[^?/][^{]*)*)(?:\{\/(.*?)\})?(?:\{\?(.*)\})?$/.exec(address) ?? [];
  const segments: (string | Slot)[] = [];
  let lead = mount;
  let prefix = mount;
  let literals = 0;
  const parts = path.split('/').slice(1);
  for (const segment of last === undefined ? parts : [...parts, last]) {
    const isLast = segments.length === parts.length;
    if (isLast || segment.startsWith('{')) {
      segments.push(add(isLast ? segment : segment.slice(1, -1), true, isLast, false, lead + '/'));
      lead = '';
    } else if (segment !== '') {
      lead += '/' + segment;
      if (slots.length === 0) {
        prefix = lead;
        literals++;
      }
      segments.push(segment);
    }
  }
  const inPath = slots.length;
  for (const name of query?.split(',') ?? []) {
    const repeated = name.endsWith('*');
    add(repeated ? name.slice(0, -1) : name, false, true, repeated, '');
  }
  for (const slot of slots.slice(inPath))
    for (const former of slot.parameter.options.formerNames ?? []) if (!byName.has(former)) byName.set(former, slot);
  for (const [name, slot] of byName) if (!byName.has(name.toLowerCase())) byName.set(name.toLowerCase(), slot);
  return {
    prefix,
    literals,
    root: path === '' && last === undefined ? '' : '/',
    tail: lead,
    segments,
    optional: last !== undefined,
    slots,
    inPath,
    byName,
    absent,
  };
}
