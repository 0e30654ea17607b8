import { rawValue } from '../links/raw-value.ts';
import type { PresentValues } from '../try/page-in-frame.svelte.ts';

const longest = 60;

/** What an expression such as `record.specimen.name` gives on the page that is shown, as a text; empty where that is not known. */
export function presentValue(values: PresentValues, expression: string, row: string | undefined): string {
  const value = rawValue(`{${expression}}`, values, row);
  if (value === undefined || value === null) return '';
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > longest ? `${text.slice(0, longest - 1)}…` : text;
}
