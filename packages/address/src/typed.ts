import { locateQuery } from './locate.ts';
import { refusalCode, refusalData, refuse } from './outcome.ts';
import { decodeForShow, encode } from './percent.ts';
import type { AddressProblem } from './problem.ts';
import { scanPlain } from './scan.ts';
import { settle } from './settle.ts';
import type { Slot, Template } from './template.ts';
import { nextTurn } from './turn.ts';

/**
 * Reads what people typed or chose, as a form sends it: as forgivingly as an address. An empty text is the default.
 * @param texts by parameter name: several for a list, two for the ends of a range; names that are not declared are passed over
 */
export function readTyped(
  page: Template,
  texts: Readonly<Record<string, readonly string[]>>,
): { values: Record<string, unknown>; problems: readonly AddressProblem[] } {
  const names = Object.keys(texts).filter((name) => page.byName.get(name)?.name === name);
  const pairs = names.flatMap((name) => (texts[name] ?? []).map((text) => `${name}=${encode(text.toWellFormed())}`));
  nextTurn();
  scanPlain(`/?${pairs.join('&')}`, 0);
  locateQuery(page, undefined);
  const reading = settle(page, undefined);
  const problems = reading.problems.filter(
    ({ parameter = '' }) => names.includes(parameter) && page.byName.get(parameter)?.inPath === false,
  );
  const values: Record<string, unknown> = {};
  for (const name of names) {
    const slot = page.byName.get(name) as Slot;
    values[name] = slot.inPath ? readSegment(slot, texts[name]?.[0] ?? '', problems) : reading.values[name];
  }
  return { values, problems };
}

function readSegment(slot: Slot, text: string, problems: AddressProblem[]): unknown {
  refuse(text === '' && slot.required ? 'missing' : '');
  const encoded = encode(text.toWellFormed());
  const value = text === '' ? undefined : slot.read(encoded, 0, encoded.length);
  if (value === undefined && refusalCode !== '')
    problems.push({ code: refusalCode, severity: 'error', parameter: slot.name, data: refusalData });
  return value;
}

/** The texts of a value, as a form shows them: several for a list, two for a range. */
export function typedTexts({ parameter }: Slot, value: unknown): string[] {
  // As a person writes it: an address has a colour without its “#”.
  if (typeof value === 'string') return [value];
  const text = value === undefined ? undefined : parameter.write(value);
  if (text === undefined) return [];
  const separator = parameter.joins?.separator;
  return (separator === undefined ? [text] : text === '' ? [] : text.split(separator)).map(decodeForShow);
}
