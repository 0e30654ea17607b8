import { locatePath, locateQuery } from './locate.ts';
import type { Page, PageValues } from './page.ts';
import type { AddressProblem } from './problem.ts';
import { longestAddress, scan, scanPlain } from './scan.ts';
import { settle, type Settled } from './settle.ts';
import type { Template } from './template.ts';
import { nextTurn } from './turn.ts';

/**
 * What an address says of a page.
 * - `found`: the page can be shown with `values`.
 * - `refused`: a value is missing or wrong that the page cannot do without.
 * - `elsewhere`: the address is not one of the page's.
 * - `malformed`: it is no address at all.
 */
export type Reading<P> = {
  readonly problems: readonly AddressProblem[];
  /** The address was right in the past: it is to be replaced for good by today's. */
  readonly former: boolean;
} & (
  | { readonly status: 'found'; readonly values: PageValues<P> }
  | { readonly status: 'refused' | 'elsewhere' | 'malformed'; readonly values: Partial<PageValues<P>> }
);

/**
 * Reads an address: the value of each of the page's parameters.
 * A total function: for any text there is a reading, in time linear in the text; it never throws.
 * @param address a path with query and fragment as in RFC 3986, or a whole `http:` or `https:` URL, whose host is ignored
 */
export function read<P extends Page<string, unknown>>(page: P, address: string): Reading<P> {
  nextTurn();
  const isAddress = scan(address, page.prefix);
  if (isAddress && locatePath(page)) {
    locateQuery(page, undefined);
    return settle(page, undefined) as Reading<P>;
  }
  const code = isAddress ? 'unknown-page' : address.length > longestAddress ? 'address-too-long' : 'not-an-address';
  return { status: isAddress ? 'elsewhere' : 'malformed', values: {}, problems: [{ code, severity: 'error' }], former: false };
}

/**
 * As `read`, for path, query and fragment as `location` has them. A path that begins with “//” has “/.” before it, so that
 * it names no host.
 * @returns undefined where they are not one of the page's addresses
 */
export function readHere(page: Template, here: string): Settled | undefined {
  nextTurn();
  if (!scanPlain(here.startsWith('/.//') ? here.slice(2) : here, 0) || !locatePath(page)) return undefined;
  locateQuery(page, undefined);
  return settle(page, undefined);
}
