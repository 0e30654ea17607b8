/** Keeps in each entry of the history how far it was scrolled, since pages that change in place are not restored by the browser. */
export const scroll = {
  /** Called while the entry that is about to be left is still the present one. */
  keep(): void {
    try {
      window.history.replaceState({ ...(window.history.state as object | null), scroll: window.scrollY }, '');
    } catch {
      // The browser refuses so many changes: then the entry begins at the top again.
    }
  },

  /** Scrolls to where the present entry was left, or to its fragment, or to the top. */
  restore(): void {
    const state = window.history.state as { scroll?: unknown } | null;
    const target = window.location.hash === '' ? null : document.getElementById(decodeURIComponent(window.location.hash.slice(1)));
    if (typeof state?.scroll === 'number') window.scrollTo({ top: state.scroll, behavior: 'instant' });
    else if (target !== null) target.scrollIntoView({ behavior: 'instant' });
    else window.scrollTo({ top: 0, behavior: 'instant' });
  },

  /** From now on the entries are restored here; a reload is the browser’s again. */
  take(): void {
    window.history.scrollRestoration = 'manual';
    window.addEventListener('pagehide', () => {
      scroll.keep();
      window.history.scrollRestoration = 'auto';
    });
  },
};
