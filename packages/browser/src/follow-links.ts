interface Follower {
  go(address: string, options?: { step?: boolean }): boolean;
  flush(): void;
}

/**
 * Lets plain links to the page change it in place. A click that asks for a new tab or a download, and a link to anywhere
 * else, stay with the browser. A link with `data-step="false"` replaces the entry of the history. Links in open shadow trees
 * are followed too.
 * @param state what `live` gave
 * @param root where the links are, such as a shadow root: all of the document when left out
 * @returns ends it
 */
export function followLinks(state: Follower, root: Document | DocumentFragment | HTMLElement = document): () => void {
  const follow = (event: Event) => {
    const click = event as MouseEvent;
    if (click.defaultPrevented || click.button !== 0 || click.metaKey || click.ctrlKey || click.shiftKey || click.altKey) return;
    const link = click.composedPath().find((node) => node instanceof HTMLAnchorElement && node.hasAttribute('href'));
    if (!(link instanceof HTMLAnchorElement) || link.hasAttribute('download') || !['', '_self'].includes(link.target)) return;
    // The browser changes the fragment alone, so the rest of the address has to be written before.
    state.flush();
    if (link.hash !== '' && link.pathname === location.pathname && link.search === location.search) return;
    if (state.go(link.href, { step: link.dataset['step'] !== 'false' })) click.preventDefault();
  };
  root.addEventListener('click', follow);
  return () => {
    root.removeEventListener('click', follow);
  };
}
