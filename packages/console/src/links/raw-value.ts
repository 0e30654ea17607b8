import type { PresentValues } from '../try/page-in-frame.svelte.ts';

/**
 * What a value of a link gives on the page that is shown: a text as it stands, or what a path in braces leads to. An expression
 * that does more than follow a path is left to the page itself: then it is not known here.
 */
export function rawValue(value: string | number | boolean, values: PresentValues, row: string | undefined): unknown {
  if (typeof value !== 'string' || !value.includes('{')) return value;
  const path = /^\{([A-Za-z_][\w.]*)\}$/.exec(value)?.[1];
  if (path === undefined) return undefined;
  const [root = '', ...keys] = path.split('.');
  let found: unknown = root === 'row' && row !== undefined ? values.row?.[row] : (values as Record<string, unknown>)[root];
  for (const key of keys) found = typeof found === 'object' && found !== null ? (found as Record<string, unknown>)[key] : undefined;
  return found;
}
