import { nearest } from '../near.ts';
import { Corrected, Refusal, type Codec } from '../parameters/codec.ts';
import type { ParameterValue } from '../parameters/declaration.ts';
import { quote, type Problem } from '../problem.ts';
import type { Claim, CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { decodeForShow, decodeQuery, decodeSegment, malformed } from './percent.ts';
import type { Origin, ParameterReading, Reading } from './reading.ts';
import { tidyAddress } from './tidy.ts';

/** Longest address that is read, in UTF-16 code units. */
export const longestAddress = 65_536;
const mostUndeclared = 100;

type Decode = (text: string) => string | typeof malformed;

/**
 * Reads an address: finds its page and the value of each of the page's parameters.
 * A total function: for any text there is a reading, in time linear in the text; it never throws.
 * @param address a path with query and fragment as in RFC 3986, or a whole `http:` or `https:` URL, whose host is ignored
 */
export function readAddress(app: CompiledApp, address: string): Reading {
  const reading: Reading = { status: 'page', values: {}, parameters: [], problems: [], undeclared: [], former: false };
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
  const claim = claimAt(app, text.slice(0, mark), captured);
  if (claim === undefined) {
    return fail(
      reading,
      'unknown-page',
      'unknown-page',
      `The app has no page at ${quote(text.slice(0, mark), 80)}.`,
      'Check the address, or start from the app’s first page.',
    );
  }
  const { page } = claim;
  reading.page = page.name;
  reading.former = claim.former;
  for (const parameter of page.path) {
    const raw = captured[claim.path.indexOf(parameter)];
    take(reading, parameter, raw, decodeSegment, false);
  }
  readQuery(reading, page, text, mark + 1, end);
  return reading;
}

/** Finds whose path this is, and the raw texts of its path parameters. */
function claimAt(app: CompiledApp, path: string, captured: string[]): Claim | undefined {
  const { mount } = app;
  if (mount === '') return app.finder.find(path, captured);
  if (!path.startsWith(mount) || (path.length > mount.length && path.charCodeAt(mount.length) !== 47)) return undefined;
  return app.finder.find(path.slice(mount.length), captured);
}

function readQuery(reading: Reading, page: CompiledPage, text: string, start: number, end: number): void {
  const { query, queryIndex } = page;
  const raws: (string | undefined)[] = [];
  let more: Map<number, string[]> | undefined;
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
    const nameEnd = equals < ampersand ? equals : ampersand;
    if (ampersand > i) {
      const rawName = text.slice(i, nameEnd);
      const raw = nameEnd < ampersand ? text.slice(nameEnd + 1, ampersand) : '';
      const index = queryIndex.get(rawName) ?? queryIndex.get(decodeForShow(rawName));
      if (index === undefined) {
        if (reading.undeclared.length < mostUndeclared) reading.undeclared.push({ name: rawName, text: raw });
      } else {
        const before = raws[index];
        if (before === undefined) raws[index] = raw;
        else {
          const all = (more ??= new Map<number, string[]>()).get(index);
          if (all === undefined) more.set(index, [before, raw]);
          else all.push(raw);
        }
        if (query[index]?.name !== rawName) (renamed ??= new Set()).add(index);
      }
    }
    i = ampersand + 1;
  }
  for (let index = 0; index < query.length; index++) {
    const parameter = query[index] as CompiledParameter;
    const again = more?.get(index);
    const former = renamed?.has(index) === true;
    if (again === undefined) take(reading, parameter, raws[index], decodeQuery, former);
    else if (parameter.codec.several !== undefined) takeSeveral(reading, parameter, again, decodeQuery, former);
    else refuse(reading, parameter, again.join(`&${parameter.name}=`), new Refusal('repeated', 'The address gives it more than once.'));
  }
  if (reading.undeclared.length > 0) reading.problems.push(strangers(reading, page));
}

/** Settles one parameter from its raw text. */
function take(reading: Reading, parameter: CompiledParameter, raw: string | undefined, decode: Decode, renamed: boolean): void {
  if (raw === undefined) {
    settle(reading, parameter, undefined, 'absent', false);
    return;
  }
  const { codec } = parameter;
  if (codec.several !== undefined && raw !== '') {
    takeSeveral(reading, parameter, parameter.repeated ? [raw] : raw.split(','), decode, renamed, raw);
    return;
  }
  const text = decode(raw);
  if (text === malformed) refuse(reading, parameter, raw, badEscape);
  else if (text === '' && codec.readsBlank !== true) settle(reading, parameter, raw, 'blank', true);
  else give(reading, parameter, raw, readText(codec, text), text === '' ? 'blank' : 'given', renamed);
}

/** Settles a list from the raw texts of its items, each decoded on its own, so that it may hold a comma. */
function takeSeveral(
  reading: Reading,
  parameter: CompiledParameter,
  raws: readonly string[],
  decode: Decode,
  renamed: boolean,
  whole = raws.join(`&${parameter.name}=`),
): void {
  // A list that is joined and yet given twice, or the other way round, means the same: the items in their order.
  const items = parameter.repeated || raws.length === 1 ? raws : raws.flatMap((raw) => raw.split(','));
  const texts: string[] = [];
  for (const raw of items) {
    const text = decode(raw);
    if (text === malformed) {
      refuse(reading, parameter, whole, badEscape);
      return;
    }
    texts.push(text);
  }
  const value = parameter.codec.several?.read(texts) ?? badEscape;
  const otherForm = !parameter.repeated && whole.includes('&');
  give(reading, parameter, whole, otherForm && isValue(value) ? new Corrected(value) : value, 'given', renamed);
}

const badEscape = new Refusal('malformed-escape', 'Its percent-encoding is not well-formed UTF-8.');

const readText = (codec: Codec, text: string) => (text === '' && codec.several !== undefined ? codec.several.read([]) : codec.read(text));

const isValue = (value: ParameterValue | Corrected | Refusal): value is ParameterValue =>
  !(value instanceof Refusal) && !(value instanceof Corrected);

/** Notes what reading a text gave. */
function give(
  reading: Reading,
  parameter: CompiledParameter,
  raw: string,
  value: ParameterValue | Corrected | Refusal,
  origin: Origin,
  renamed: boolean,
): void {
  if (typeof value === 'object' && value !== null) {
    if (value instanceof Refusal) {
      refuse(reading, parameter, raw, value);
      return;
    }
    if (value instanceof Corrected) {
      reading.former ||= value.former || renamed;
      reading.values[parameter.name] = value.value;
      reading.parameters.push({ name: parameter.name, place: parameter.place, text: raw, value: value.value, origin, corrected: true });
      return;
    }
  }
  reading.former ||= renamed;
  reading.values[parameter.name] = value;
  reading.parameters.push({ name: parameter.name, place: parameter.place, text: raw, value, origin, corrected: renamed });
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
  const fallback = parameter.fallback?.();
  if (fallback !== undefined) {
    entry.value = fallback.value;
    if (missing === 'absent') entry.origin = 'default';
    reading.values[parameter.name] = fallback.value;
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
  const near = nearest(names[0] ?? '', page.queryIndex.keys());
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
