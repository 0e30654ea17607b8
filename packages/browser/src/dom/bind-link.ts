import type { Page, PageValues } from '@pallmist/address';
import { followLinks } from '../follow-links.ts';
import type { Live, LiveChanges } from '../live-types.ts';

/**
 * Has a link lead to the page with some changes. Its `href` follows the present values, so it can be opened in a new tab
 * and copied; a plain click changes the page in place. A link to what is shown already has `aria-current="true"`.
 * @param changes the changes, or a function that gives them for the present values
 * @returns ends it
 */
export function bindLink<P extends Page<string, unknown>>(
  state: Live<P>,
  link: HTMLAnchorElement,
  changes: LiveChanges<P> | ((values: PageValues<P>) => LiveChanges<P>),
): () => void {
  const shown = () => {
    const address = state.href(typeof changes === 'function' ? changes(state.values) : changes);
    link.setAttribute('href', address);
    if (address === state.href()) link.setAttribute('aria-current', 'true');
    else link.removeAttribute('aria-current');
  };
  shown();
  const ends = [state.subscribe(shown), followLinks(state, link)];
  return () => {
    for (const end of ends) end();
  };
}
