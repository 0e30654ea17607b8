/** Milliseconds that a pointer rests on a link until it is taken for an intent. */
const restFor = 60;

interface LinkActions {
  /** Whether an address is one of this app’s. */
  isOwn(url: URL): boolean;
  open(address: string): void;
  mayLeave(): boolean;
  intend(address: string): void;
}

/**
 * Opens the app’s links in place, and tells which one a person seems about to open. Links of other sites, of new
 * windows, and clicks with a modifier key stay with the browser.
 */
export function followLinks(root: HTMLElement, actions: LinkActions): void {
  const addressOf = (event: Event): string | undefined => {
    const link = event.target instanceof Element ? event.target.closest('a') : null;
    if (link === null || link.href === '' || link.target !== '' || link.hasAttribute('download')) return undefined;
    const url = new URL(link.href);
    const here = url.pathname === window.location.pathname && url.search === window.location.search;
    if (url.origin !== window.location.origin || !actions.isOwn(url) || (here && url.hash !== '')) return undefined;
    return url.pathname + url.search + url.hash;
  };
  root.addEventListener('click', (event) => {
    if (event.defaultPrevented || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    const address = addressOf(event);
    if (address === undefined) return;
    event.preventDefault();
    if (actions.mayLeave()) actions.open(address);
  });
  let timer: number | undefined;
  root.addEventListener('pointerover', (event) => {
    window.clearTimeout(timer);
    const address = addressOf(event);
    if (address !== undefined)
      timer = window.setTimeout(() => {
        actions.intend(address);
      }, restFor);
  });
  root.addEventListener('focusin', (event) => {
    const address = addressOf(event);
    if (address !== undefined) actions.intend(address);
  });
}
