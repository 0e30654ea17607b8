import { nearest } from '../near.ts';
import { Corrected, Refusal, type Codec } from '../parameters/codec.ts';
import type { ParameterValue } from '../parameters/declaration.ts';
import { quote, type Problem } from '../problem.ts';
import type { Claim, CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
import { decodeForShow, decodePlus, decodeQuery, decodeSegment, malformed } from './percent.ts';
import type { Origin, ParameterReading, Reading } from './reading.ts';
import { standsAt } from './stands-at.ts';
import { tidyAddress, type TidyAddress } from './tidy.ts';

/** Longest address that is read, in UTF-16 code units. */
export const longestAddress = 65_536;
const mostUndeclared = 100;

type Decode = (text: string) => string | typeof malformed;
const asItStands: Decode = (text) => text;

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
  const tidy = tidyAddress(address);
  if (tidy === undefined) {
    return fail(
      reading,
      'malformed',
      'not-an-address',
      `${quote(address)} is not an address of the web.`,
      'Give a path that begins with “/”, or a whole http or https URL.',
    );
  }
  const { text, pathEnd, queryEnd } = tidy;
  if (queryEnd < text.length) reading.fragment = text.slice(queryEnd + 1);

  const captured: string[] = [];
  const claim = claimAt(app, text, pathEnd, captured);
  if (claim === undefined) {
    return fail(
      reading,
      'unknown-page',
      'unknown-page',
      `The app has no page at ${quote(text.slice(0, pathEnd), 80)}.`,
      'Check the address, or start from the app’s first page.',
    );
  }
  const { page } = claim;
  reading.page = page.name;
  reading.former = claim.former;
  for (let index = 0; index < page.path.length; index++) {
    const parameter = page.path[index] as CompiledParameter;
    take(
      reading,
      parameter,
      captured[claim.former ? claim.path.indexOf(parameter) : index],
      tidy.percent ? decodeSegment : asItStands,
      false,
    );
  }
  readQuery(reading, page, tidy);
  return reading;
}

/** Finds whose path this is, and the raw texts of its path parameters. */
function claimAt(app: CompiledApp, text: string, end: number, captured: string[]): Claim | undefined {
  const { length } = app.mount;
  if (length > 0 && (!text.startsWith(app.mount) || (end > length && text.charCodeAt(length) !== 47))) return undefined;
  return end < length ? undefined : app.finder.find(text, length, end, captured);
}

function readQuery(reading: Reading, page: CompiledPage, tidy: TidyAddress): void {
  // Where there is nothing to decode, texts are as they stand.
  const decode: Decode = tidy.plus ? (tidy.percent ? decodeQuery : decodePlus) : tidy.percent ? decodeSegment : asItStands;
  const settled = reading.parameters.length;
  const problems = reading.problems.length;
  const { status } = reading;
  if (readInOrder(reading, page.query, tidy, decode)) return;
  // Some name is out of order, repeated or unknown: begin the query again, looking each name up.
  for (const { name } of reading.parameters.splice(settled)) Reflect.deleteProperty(reading.values, name);
  reading.problems.length = problems;
  reading.status = status;
  readInAnyOrder(reading, page, tidy, decode);
}

/**
 * Reads a query whose names stand in declared order, each once, as written addresses have them: in one pass, names
 * compared where they stand. @returns false where the query is otherwise
 */
function readInOrder(
  reading: Reading,
  query: readonly CompiledParameter[],
  { text, pathEnd, queryEnd }: TidyAddress,
  decode: Decode,
): boolean {
  let next = 0;
  for (let i = pathEnd + 1; i < queryEnd;) {
    let parameter: CompiledParameter | undefined;
    let value = i;
    while (parameter === undefined) {
      const candidate = query[next++];
      if (candidate === undefined) return false;
      value = i + candidate.name.length;
      if (text.charCodeAt(value) === 61 && standsAt(text, i, candidate.name)) parameter = candidate;
      // Not this one; if it stands further on, the query is in another order, which shows when the end is reached.
      else take(reading, candidate, undefined, decode, false);
    }
    let end = text.indexOf('&', value);
    if (end === -1 || end > queryEnd) end = queryEnd;
    take(reading, parameter, text.slice(value + 1, end), decode, false);
    i = end + 1;
  }
  while (next < query.length) take(reading, query[next++] as CompiledParameter, undefined, decode, false);
  return true;
}

/** Reads any query: names in any order, repeated, former, encoded, or declared by nobody. */
function readInAnyOrder(reading: Reading, page: CompiledPage, { text, pathEnd, queryEnd }: TidyAddress, decode: Decode): void {
  const { query, queryIndex } = page;
  const raws: string[][] = [];
  let renamed: Set<number> | undefined;
  for (let i = pathEnd + 1; i < queryEnd;) {
    let end = text.indexOf('&', i);
    if (end === -1 || end > queryEnd) end = queryEnd;
    const pair = text.slice(i, end);
    i = end + 1;
    if (pair === '') continue;
    const equals = pair.indexOf('=');
    const name = equals === -1 ? pair : pair.slice(0, equals);
    const raw = equals === -1 ? '' : pair.slice(equals + 1);
    const index = queryIndex.get(name) ?? queryIndex.get(decodeForShow(name));
    if (index === undefined) {
      if (reading.undeclared.length < mostUndeclared) reading.undeclared.push({ name, text: raw });
      continue;
    }
    (raws[index] ??= []).push(raw);
    if (query[index]?.name !== name) (renamed ??= new Set()).add(index);
  }
  for (const [index, parameter] of query.entries()) {
    const given = raws[index];
    const former = renamed?.has(index) === true;
    if (given === undefined || given.length === 1) take(reading, parameter, given?.[0], decode, former);
    // A form sends every box, those that were left empty too.
    else if (given.every((raw) => raw === '')) take(reading, parameter, '', decode, former);
    else if (parameter.codec.several !== undefined) takeSeveral(reading, parameter, given, decode, former);
    else refuse(reading, parameter, given.join(`&${parameter.name}=`), new Refusal('repeated', 'The address gives it more than once.'));
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
  if (codec.several?.joins === true && raw !== '') {
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
  const items =
    parameter.repeated || raws.length === 1 || parameter.codec.several?.joins === false ? raws : raws.flatMap((raw) => raw.split(','));
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
