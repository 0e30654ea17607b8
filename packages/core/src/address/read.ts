import { nearest } from '../near.ts';
import { Corrected, Refusal } from '../parameters/codec.ts';
import { quote, type Problem } from '../problem.ts';
import type { CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { decodeForShow, decodeQuery, decodeSegment, malformed } from './percent.ts';
import type { Origin, ParameterReading, Reading } from './reading.ts';
import { tidyAddress } from './tidy.ts';

/** Longest address that is read, in UTF-16 code units. */
export const longestAddress = 65_536;
const mostUndeclared = 100;

/**
 * Reads an address: finds its page and the value of each of the page's parameters.
 * A total function: for any text there is a reading, in time linear in the text; it never throws.
 * @param address a path with query and fragment as in RFC 3986, or a whole `http:` or `https:` URL, whose host is ignored
 */
export function readAddress(app: CompiledApp, address: string): Reading {
  const reading: Reading = { status: 'page', values: {}, parameters: [], problems: [], undeclared: [] };
  if (address.length > longestAddress) {
    return fail(
      reading,
      'malformed',
      'address-too-long',
      `The address is longer than ${String(longestAddress)} characters.`,
      'Shorten it.',
    );
  }
  const text = tidyAddress(address);
  if (text === undefined) {
    return fail(
      reading,
      'malformed',
      'not-an-address',
      `${quote(address)} is not an address of the web.`,
      'Give a path that begins with “/”, or a whole http or https URL.',
    );
  }

  let end = text.indexOf('#');
  if (end === -1) end = text.length;
  else reading.fragment = text.slice(end + 1);
  let mark = text.indexOf('?');
  if (mark === -1 || mark > end) mark = end;

  const captured: string[] = [];
  const page = pageAt(app, text.slice(0, mark), captured);
  if (page === undefined) {
    return fail(
      reading,
      'unknown-page',
      'unknown-page',
      `The app has no page at ${quote(text.slice(0, mark), 80)}.`,
      'Check the address, or start from the app’s first page.',
    );
  }
  reading.page = page.name;

  for (const [index, parameter] of page.path.entries()) {
    const raw = captured[index];
    take(reading, parameter, raw, raw === undefined ? undefined : decodeSegment(raw), false);
  }
  readQuery(reading, page, text, mark + 1, end);
  return reading;
}

/** Finds the page whose template has this path, and the raw texts of its path parameters. */
function pageAt(app: CompiledApp, path: string, captured: string[]): CompiledPage | undefined {
  const { mount } = app;
  if (mount === '') return app.finder.find(path, captured);
  if (!path.startsWith(mount) || (path.length > mount.length && path.charCodeAt(mount.length) !== 47)) return undefined;
  return app.finder.find(path.slice(mount.length), captured);
}

function readQuery(reading: Reading, page: CompiledPage, text: string, start: number, end: number): void {
  const { query, queryIndex } = page;
  const raws: (string | undefined)[] = new Array<string | undefined>(query.length).fill(undefined);
  let repeated: Set<number> | undefined;
  let renamed: Set<number> | undefined;
  let equals = -1;
  for (let i = start; i < end;) {
    let ampersand = text.indexOf('&', i);
    if (ampersand === -1 || ampersand > end) ampersand = end;
    // Looked for again only once it has been passed, so that the whole loop stays linear.
    if (equals < i) {
      equals = text.indexOf('=', i);
      if (equals === -1) equals = text.length;
    }
    const nameEnd = Math.min(equals, ampersand);
    if (ampersand > i) {
      const rawName = text.slice(i, nameEnd);
      const raw = text.slice(Math.min(nameEnd + 1, ampersand), ampersand);
      const index = queryIndex.get(rawName) ?? queryIndex.get(decodeForShow(rawName));
      if (index === undefined) {
        if (reading.undeclared.length < mostUndeclared) reading.undeclared.push({ name: rawName, text: raw });
      } else {
        if (raws[index] === undefined) raws[index] = raw;
        else (repeated ??= new Set()).add(index);
        if (query[index]?.name !== rawName) (renamed ??= new Set()).add(index);
      }
    }
    i = ampersand + 1;
  }
  for (let index = 0; index < query.length; index++) {
    const parameter = query[index];
    if (parameter === undefined) continue;
    const raw = raws[index];
    if (repeated?.has(index)) {
      refuse(reading, parameter, raw, new Refusal('repeated', 'The address gives it more than once.'));
    } else {
      take(reading, parameter, raw, raw === undefined ? undefined : decodeQuery(raw), renamed?.has(index) ?? false);
    }
  }
  if (reading.undeclared.length > 0) reading.problems.push(strangers(reading, page));
}

/** Settles one parameter from its decoded text. */
function take(
  reading: Reading,
  parameter: CompiledParameter,
  raw: string | undefined,
  text: string | typeof malformed | undefined,
  renamed: boolean,
): void {
  if (text === undefined) {
    settle(reading, parameter, undefined, 'absent', false);
  } else if (text === malformed) {
    refuse(reading, parameter, raw, new Refusal('malformed-escape', 'Its percent-encoding is not well-formed UTF-8.'));
  } else if (text === '' && parameter.codec.readsBlank !== true) {
    settle(reading, parameter, raw, 'blank', true);
  } else {
    const value = parameter.codec.read(text);
    if (value instanceof Refusal) {
      refuse(reading, parameter, raw, value);
      return;
    }
    const corrected = value instanceof Corrected;
    const entry: ParameterReading = {
      name: parameter.name,
      place: parameter.place,
      value: corrected ? value.value : value,
      origin: text === '' ? 'blank' : 'given',
      corrected: corrected || renamed,
    };
    if (raw !== undefined) entry.text = raw;
    reading.parameters.push(entry);
    reading.values[parameter.name] = entry.value;
  }
}

/** The value when the address gives none: the default, or nothing. */
function settle(
  reading: Reading,
  parameter: CompiledParameter,
  raw: string | undefined,
  missing: Origin,
  corrected: boolean,
): ParameterReading {
  const entry: ParameterReading = { name: parameter.name, place: parameter.place, origin: missing, corrected };
  if (raw !== undefined) entry.text = raw;
  if (parameter.default !== undefined) {
    entry.value = parameter.default;
    if (missing === 'absent') entry.origin = 'default';
    reading.values[parameter.name] = parameter.default;
  } else if (parameter.required) {
    entry.problem = {
      code: 'missing',
      severity: 'error',
      message: `The address lacks “${parameter.name}”${parameter.declaration.label === undefined ? '' : ` (${parameter.declaration.label})`}, without which the page makes no sense.`,
      hint: 'Start from a page that links here.',
      parameter: parameter.name,
    };
    reading.problems.push(entry.problem);
    reading.status = 'refused';
  }
  reading.parameters.push(entry);
  return entry;
}

/** A text that the parameter does not accept: the page is refused, or goes on with the default and says so. */
function refuse(reading: Reading, parameter: CompiledParameter, raw: string | undefined, refusal: Refusal): void {
  const problem: Problem = {
    code: refusal.code,
    severity: parameter.refuses ? 'error' : 'warning',
    message: `“${parameter.declaration.label ?? parameter.name}” cannot be ${quote(decodeForShow(raw ?? ''))}: ${refusal.message}`,
    parameter: parameter.name,
  };
  if (parameter.refuses) {
    const entry: ParameterReading = { name: parameter.name, place: parameter.place, origin: 'absent', corrected: false, problem };
    if (raw !== undefined) entry.text = raw;
    reading.parameters.push(entry);
    reading.status = 'refused';
  } else {
    settle(reading, parameter, raw, 'absent', false).problem = problem;
  }
  reading.problems.push(problem);
}

/** One note for all names that the page does not declare; names with “~” are Pallmist’s own. */
function strangers(reading: Reading, page: CompiledPage): Problem {
  const names = [...new Set(reading.undeclared.map(({ name }) => decodeForShow(name)))].filter((name) => !name.startsWith('~'));
  const first = names[0] ?? '';
  const near = nearest(first, page.queryIndex.keys());
  return {
    code: 'undeclared',
    severity: 'note',
    message:
      names.length === 0
        ? 'The address carries names of Pallmist’s own.'
        : `The page does not know ${names
            .slice(0, 5)
            .map((name) => quote(name))
            .join(', ')}${names.length > 5 ? ' and others' : ''}.`,
    hint: near === undefined ? 'It is ignored.' : `Perhaps “${near}” was meant.`,
  };
}

function fail(reading: Reading, status: Reading['status'], code: string, message: string, hint: string): Reading {
  reading.status = status;
  reading.problems.push({ code, severity: 'error', message, hint });
  return reading;
}
