import type { AddressTemplate } from '@pallmist/address/declare';
import { partsOf } from './template-parts.ts';

type Segments = AddressTemplate['segments'];

/** A page whose address template takes some of another's addresses. */
export interface Rival {
  page: string;
  /** Its template without the query. */
  address: string;
  /** A path, without the mount, that both templates take; what is a parameter in both stands in braces, by the first’s name. */
  path: string;
}

/** The address templates of an app, for finding those that take addresses of another: a literal beats a parameter. */
export class TemplateIndex {
  /** By the number of segments and the first one, `*` for a parameter. */
  readonly #groups = new Map<string, { page: string; address: string; segments: Segments }[]>();

  constructor(addresses: Iterable<readonly [page: string, address: string]>) {
    for (const [page, address] of addresses) {
      const { segments } = partsOf(address);
      const key = keyOf(segments);
      const group = this.#groups.get(key);
      const entry = { page, address: address.replace(/\{\?[^{}]*\}$/, ''), segments };
      if (group === undefined) this.#groups.set(key, [entry]);
      else group.push(entry);
    }
  }

  /** Those that take addresses of a template, itself left out. */
  rivalsOf(address: string, page: string): Rival[] {
    const { segments } = partsOf(address);
    if (!segments.some((segment) => 'parameter' in segment)) return [];
    const length = String(segments.length);
    const first = segments[0] !== undefined && 'literal' in segments[0] ? segments[0].literal : undefined;
    const groups =
      first === undefined
        ? [...this.#groups].filter(([key]) => key.startsWith(`${length} `)).map(([, group]) => group)
        : [this.#groups.get(`${length} ${first}`) ?? []];
    return groups.flat().flatMap((other) => {
      const path = other.page === page ? undefined : common(segments, other.segments);
      return path === undefined ? [] : [{ page: other.page, address: other.address, path }];
    });
  }
}

const keyOf = (segments: Segments): string => {
  const [first] = segments;
  return `${String(segments.length)} ${first !== undefined && 'literal' in first ? first.literal : '*'}`;
};

/** A path that both templates take, in which the second has a literal where the first has a parameter, and nowhere the reverse before. */
function common(segments: Segments, others: Segments): string | undefined {
  let path = '';
  let takes = false;
  for (const [index, segment] of segments.entries()) {
    const other = others[index];
    if (other === undefined) return undefined;
    if ('literal' in segment && 'literal' in other && segment.literal !== other.literal) return undefined;
    if ('parameter' in segment && 'literal' in other) takes = true;
    const literal = 'literal' in segment ? segment : 'literal' in other ? other : undefined;
    path += literal === undefined && 'parameter' in segment ? `/{${segment.parameter}}` : `/${encodeURIComponent(literal?.literal ?? '')}`;
  }
  return takes ? path : undefined;
}
