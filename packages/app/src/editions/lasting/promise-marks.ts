import { shortMark } from '../../short-mark.ts';
import type { Found, PromisedPage } from './promised-page.ts';

/** The mark of a promise: it stays the same while neither the earlier declaration nor the effect changes. */
export const promiseOf = ({ version, fate, kind, parameter, page }: Found): string =>
  shortMark(JSON.stringify([version.key, version.page, fate, kind, parameter, page]));

/** The marks by which a builder has given up that a page is there at all. */
export const withdrawnMarks = (version: PromisedPage): string[] =>
  (['no-page', 'app-moved'] as const).map((kind) => promiseOf({ version, fate: 'gone', kind, witness: '' }));
