import type { PreviousPage } from '@pallmist/app/view';
import { focusAgain, focused } from './focus.ts';

/** What an entry of the browser's history holds, beside its address. */
interface EntryState {
  /** How far the page was scrolled when the entry was left, in CSS pixels. */
  scroll?: number;
  /** What had the focus, as a selector. */
  focus?: string;
  /** The page that the visitor came from, and how many entries back it is. */
  previous?: PreviousPage & { steps: number };
}

const state = (): EntryState => (window.history.state as EntryState | null) ?? {};

function put(next: EntryState): void {
  try {
    window.history.replaceState(next, '');
  } catch {
    // The browser refuses so many changes: then the entry begins at the top again.
  }
}

/** The present entry of the history. Pages that change in place are restored here, since the browser does not. */
export const entry = {
  /** From now on the entries are restored here; a reload is the browser’s again. */
  restoreFrom(previous: PreviousPage | undefined): void {
    if (previous !== undefined && state().previous === undefined) put({ ...state(), previous: { ...previous, steps: 0 } });
    window.history.scrollRestoration = 'manual';
    window.addEventListener('pagehide', () => {
      entry.keep();
      window.history.scrollRestoration = 'auto';
    });
  },

  /** Called while the entry that is about to be left is still the present one. */
  keep(): void {
    const focus = focused();
    put({ ...state(), scroll: window.scrollY, ...(focus === undefined ? {} : { focus }) });
  },

  /** Scrolls to where the present entry was left, or to its fragment, or to the top; @returns what had the focus */
  restore(): HTMLElement | undefined {
    const { scroll, focus } = state();
    const target = window.location.hash === '' ? null : document.getElementById(fragment());
    if (scroll !== undefined) window.scrollTo({ top: scroll, behavior: 'instant' });
    else if (target !== null) target.scrollIntoView({ behavior: 'instant' });
    else window.scrollTo({ top: 0, behavior: 'instant' });
    return focusAgain(focus);
  },

  /** What a new entry of the same page holds: the same way back, one step further. */
  ofStep(): EntryState {
    const { previous } = state();
    return previous === undefined ? {} : { previous: { ...previous, steps: previous.steps === 0 ? 0 : previous.steps + 1 } };
  },

  /** What the first entry of another page holds. */
  ofPageAfter: (previous: PreviousPage): EntryState => ({ previous: { ...previous, steps: 1 } }),

  get previous(): EntryState['previous'] {
    return state().previous;
  },
};

function fragment(): string {
  try {
    return decodeURIComponent(window.location.hash.slice(1));
  } catch {
    return window.location.hash.slice(1);
  }
}
