import type { KeepingForm } from './node-parts.ts';

/** The path of a page’s address template, with the names of its parameters in braces and without its query. */
export const pathTemplate = (address: string): string => /^[^{]*(?:\{[^?][^{]*)*/.exec(address)?.[0] ?? '';

/**
 * The address that a form leads to with these texts; it is read as any address, and written in its one form then.
 * @param entries of the form, by name, those that it keeps among them; empty ones are left out
 * @returns undefined where a text is missing without which there is no path
 */
export function formAddress(
  { action, path }: Pick<KeepingForm, 'action' | 'path'>,
  entries: readonly (readonly [string, string])[],
): string | undefined {
  // An end of a range that is left open says something beside the other end.
  const filledNames = new Set(entries.filter(([, text]) => text !== '').map(([name]) => name));
  const given = entries.filter(([name]) => filledNames.has(name));
  const inPath = [...(path ?? '').matchAll(/\{(\/?)(\w[\w-]*)\}/g)].map(([, optional = '', name = '']) => ({ optional, name }));
  const texts = new Map([...given].reverse());
  const textOf = (name: string) => texts.get(name);
  if (inPath.some(({ optional, name }) => optional === '' && textOf(name) === undefined)) return undefined;
  let filled = path;
  for (const { optional, name } of inPath) {
    const text = textOf(name);
    filled = filled?.replace(`{${optional}${name}}`, () => (text === undefined ? '' : optional + encodeURIComponent(text)));
  }
  const namesInPath = new Set(inPath.map(({ name }) => name));
  const query = new URLSearchParams(
    given.filter(([of]) => !namesInPath.has(of)).map(([name, text]) => [name, text.replaceAll('\r\n', '\n')]),
  ).toString();
  const to = filled ?? action;
  return query === '' ? to : `${to}?${query}`;
}
