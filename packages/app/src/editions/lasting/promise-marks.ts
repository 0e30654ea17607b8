import { shortMark } from '../../short-mark.ts';
import type { Found, PromisedPage } from './promised-page.ts';

const marks = new WeakMap<Found, string>();

/** The mark of a promise: it stays the same while neither the earlier declaration nor the effect changes. */
export function promiseOf(found: Found): string {
  let mark = marks.get(found);
  if (mark === undefined) {
    const { version, fate, kind, parameter, page } = found;
    marks.set(found, (mark = shortMark(JSON.stringify([version.key, version.page, fate, kind, parameter, page]))));
  }
  return mark;
}

/** The marks by which a builder has given up that a page is there at all. */
export const withdrawnMarks = (version: PromisedPage): string[] =>
  (['no-page', 'app-moved'] as const).map((kind) => promiseOf({ version, fate: 'gone', kind, witness: '' }));
