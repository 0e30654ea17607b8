import { AddressError, type Page, type PageValues } from '@pallmist/address';
import { followLinks } from '../follow-links.ts';
import type { Live, LiveChanges } from '../live-types.ts';

/**
 * Has a link lead to the page with some changes. Its `href` follows the present values, so it can be opened in a new tab
 * and copied; a plain click changes the page in place. A link to what is shown already has `aria-current="true"`; one to
 * what the page refuses, such as the page after the last, leads nowhere and has `aria-disabled="true"`.
 * @param changes the changes, or a function that gives them for the present values
 * @returns ends it
 */
export function bindLink<P extends Page<string, unknown>>(
  state: Live<P>,
  link: HTMLAnchorElement,
  changes: LiveChanges<P> | ((values: PageValues<P>) => LiveChanges<P>),
): () => void {
  const shown = () => {
    const address = hrefOf(state, typeof changes === 'function' ? changes(state.values) : changes);
    setOrRemove(link, 'href', address);
    setOrRemove(link, 'aria-disabled', address === undefined ? 'true' : undefined);
    setOrRemove(link, 'aria-current', address !== undefined && address === hrefOf(state) ? 'true' : undefined);
  };
  shown();
  const ends = [state.subscribe(shown), followLinks(state, link)];
  return () => {
    for (const end of ends) end();
  };
}

/** The address after some changes; undefined where it cannot be written. */
function hrefOf<P extends Page<string, unknown>>(state: Live<P>, changes?: LiveChanges<P>): string | undefined {
  try {
    return state.href(changes);
  } catch (error) {
    if (error instanceof AddressError) return undefined;
    throw error;
  }
}

function setOrRemove(element: Element, name: string, value: string | undefined): void {
  if (value === undefined) element.removeAttribute(name);
  else element.setAttribute(name, value);
}
