import { write, type LinkValues, type Page } from '@pallmist/address';
import type { Template } from '@pallmist/address/live';
import type { Live } from './live-types.ts';

/**
 * The whole address of what a page shows, for others: without the parameters that are declared with `share: false`, those
 * that act once, the fragment, and what the page does not declare.
 * @param base an absolute URL at which the page stands; the window's address when left out
 * @throws AddressError where the page cannot be shown without what is left out
 */
export function addressToShare<P extends Page<string, unknown>>(state: Live<P>, base = location.href): string {
  const { slots } = state.page as Template;
  const shared = slots.filter(({ parameter: { options } }) => options.share !== false && options.once !== true);
  const values = Object.fromEntries(shared.map(({ name }) => [name, state.get(name as never)]));
  const url = new URL(write(state.page, values as LinkValues<P>), base);
  url.hash = '';
  // A query without parameters leaves its “?”.
  return url.search === '' ? url.href.replace(/\?$/, '') : url.href;
}
