import type { Component } from '@pallmist/app/editing';

const key = 'pallmist-component';

/** Components that were copied: they can be pasted on other pages, in other tabs and after a reload. */
export const clipboard = {
  copy(component: Component): void {
    const text = JSON.stringify(component);
    try {
      window.localStorage.setItem(key, text);
    } catch {
      // Then the browser’s own clipboard has it alone.
    }
    // A browser may refuse; what was kept above is enough.
    if ('clipboard' in navigator) navigator.clipboard.writeText(text).catch(() => undefined);
  },

  take(): Component | undefined {
    try {
      const text = window.localStorage.getItem(key);
      const value = text === null ? undefined : (JSON.parse(text) as unknown);
      return typeof value === 'object' && value !== null && 'show' in value ? (value as Component) : undefined;
    } catch {
      return undefined;
    }
  },
};
