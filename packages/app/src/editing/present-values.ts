/** What the names in expressions stand for on a page that is shown. */
export interface PresentValues {
  param?: Record<string, unknown>;
  record?: Record<string, unknown>;
  row?: Record<string, unknown>;
  total?: Record<string, unknown>;
  person?: unknown;
  visit?: Record<string, unknown>;
  today?: string;
  app?: unknown;
}

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

const longest = 60;

/** What an expression such as `record.specimen.name` gives on the page that is shown, as a text; empty where that is not known. */
export function presentValue(values: PresentValues, expression: string, row: string | undefined): string {
  const value = rawValue(`{${expression}}`, values, row);
  if (value === undefined || value === null) return '';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > longest ? `${text.slice(0, longest - 1)}…` : text;
}
