import type { Values } from '../declare/declaration.ts';
import { quote, type Problem } from '../declare/problem.ts';
import { explainLocated, mostUndeclared } from '../explain/explain.ts';
import { nearest } from '../explain/near.ts';
import { locateQuery, nameOf, take, takeMore, takeSegment } from '../locate.ts';
import { decodeForShow } from '../percent.ts';
import type { AddressProblem } from '../problem.ts';
import { address, longestAddress, pathEnd, scan } from '../scan.ts';
import { settle } from '../settle.ts';
import { sentenceOf } from '../sentences/index.ts';
import type { Slot } from '../template.ts';
import { nextTurn, turn } from '../turn.ts';
import { enterCall, presentSentences } from './call-context.ts';
import { expected } from './expected.ts';
import type { Claim, CompiledApp, CompiledPage, GoneClaim } from './compiled-app.ts';
import type { ParameterReading, Reading } from './reading.ts';

/**
 * Reads an address: finds its page and the value of each of the page's parameters.
 * A total function: for any text there is a reading, in time linear in the text; it never throws.
 * @param given a path with query and fragment as in RFC 3986, or a whole `http:` or `https:` URL, whose host is ignored
 */
export function readAddress(app: CompiledApp, given: string): Reading {
  enterCall(app);
  nextTurn();
  if (!scan(given)) {
    return given.length > longestAddress
      ? nothing('malformed', 'address-too-long', `The address is longer than ${String(longestAddress)} characters.`, 'Shorten it.')
      : nothing(
          'malformed',
          'not-an-address',
          `${quote(given)} is not an address of the web.`,
          'Give a path that begins with “/”, or a whole http or https URL.',
        );
  }
  const segments: number[] = [];
  const claim = claimAt(app, segments);
  if (claim === undefined) {
    return nothing(
      'unknown-page',
      'unknown-page',
      `The app has no page at ${quote(address.slice(0, pathEnd), 80)}.`,
      'Check the address, or start from the app’s first page.',
    );
  }
  if ('gone' in claim) {
    const reason = app.gone[claim.gone]?.reason;
    return { ...nothing('gone', 'gone', reason ?? 'This page was removed.', 'Start from the app’s first page.'), gone: claim.gone };
  }
  const undeclared: Reading['undeclared'] = [];
  takeTexts(claim, segments, (name, from, to) => {
    if (undeclared.length < mostUndeclared) undeclared.push({ name, text: address.slice(from, to) });
  });
  return withSentences(claim, undeclared);
}

/** What an address says, without words about it. */
export interface ReadValues {
  page: string;
  /** Of the parameters that have one. */
  values: Values;
  /** Whether it can be shown, and no value in it is wrong. */
  isRight: boolean;
  /** The address was right in the past: it is to be replaced for good by today's. */
  former: boolean;
  /** It has query parameters that the page does not declare. */
  strays: boolean;
}

/** Reads the values of an address alone, in a small part of the time of a reading; undefined where no page has it. */
export function readValues(app: CompiledApp, given: string): ReadValues | undefined {
  enterCall(app);
  nextTurn();
  if (!scan(given)) return undefined;
  const segments: number[] = [];
  const claim = claimAt(app, segments);
  if (claim === undefined || 'gone' in claim) return undefined;
  let strays = false;
  takeTexts(claim, segments, () => (strays = true));
  const { status, values, problems, former } = settle(claim.page.page, undefined);
  const isRight = status === 'found' && problems.length === 0;
  return { page: claim.page.name, values: values as Values, isRight, former: claim.former || former, strays };
}

/** Takes the texts of an address for the slots of its page. @param stray told of each name that the page does not have */
function takeTexts(claim: Claim, segments: readonly number[], stray: (name: string, from: number, to: number) => void): void {
  const { page } = claim;
  const inPath = claim.path.map((name) => page.page.byName.get(name) as Slot);
  // A path has fewer segments where the last one is optional.
  const takePath = () => {
    for (let i = 0; 2 * i < segments.length; i++) takeSegment(inPath[i] as Slot, segments[2 * i] ?? 0, segments[2 * i + 1] ?? 0);
  };
  takePath();
  locateQuery(page.page, (start, from, to) => {
    const name = nameOf(start, from);
    // A former address may have in its query what stands in the path today.
    const slot = claim.former ? page.page.byName.get(name) : undefined;
    if (slot !== undefined) takeMore(slot, from, to, false);
    else stray(name, from, to);
  });
  // What stood in its path goes before the same name in its query.
  if (claim.former) takePath();
  for (const [name, text] of Object.entries(claim.implied ?? {})) takeImplied(page.page.byName.get(name), text);
}

/** Finds whose path the scanned address has, and where the segments of its path parameters stand. */
function claimAt(app: CompiledApp, segments: number[]): Claim | GoneClaim | undefined {
  const claim = claimBelow(app.mount, app, segments);
  if (claim !== undefined) return claim;
  for (const mount of app.formerMounts) {
    const former = claimBelow(mount, app, segments);
    if (former !== undefined) return 'gone' in former ? former : { ...former, former: true };
  }
  return undefined;
}

function claimBelow(mount: string, { finder }: CompiledApp, segments: number[]): Claim | GoneClaim | undefined {
  const { length } = mount;
  if (length > 0 && (!address.startsWith(mount) || (pathEnd > length && address.charCodeAt(length) !== 47))) return undefined;
  return pathEnd < length ? undefined : finder.find(address, length, pathEnd, segments);
}

/** What a path belongs to; undefined where no page has it. */
export function claimOf(app: CompiledApp, given: string): Claim | GoneClaim | undefined {
  return scan(given) ? claimAt(app, []) : undefined;
}

/** Takes a text that a former address implies, unless the address gives another. */
function takeImplied(slot: Slot | undefined, text: string): void {
  if (slot === undefined || slot.turn === turn) return;
  take(slot, 0, 0);
  slot.odd = { source: text, raw: text };
}

function withSentences({ page, former }: Claim, undeclared: Reading['undeclared']): Reading {
  const explained = explainLocated(page.page);
  const values: Values = {};
  const said = new Map<AddressProblem, Problem>();
  const parameters = explained.parameters.map((entry): ParameterReading => {
    if (entry.value !== undefined) values[entry.name] = entry.value;
    const { problem, suggestion, wrong, ...rest } = entry;
    if (problem === undefined) return rest as ParameterReading;
    const sentence = sayProblem(page, problem, wrong ?? entry.text, suggestion);
    said.set(problem, sentence);
    return { ...rest, problem: sentence } as ParameterReading;
  });
  const reading: Reading = {
    status: explained.status === 'found' ? 'found' : 'refused',
    page: page.name,
    values,
    parameters,
    problems: explained.problems.map((problem) => said.get(problem) ?? sayProblem(page, problem)),
    undeclared,
    former: former || explained.former,
  };
  if (explained.fragment !== undefined) reading.fragment = explained.fragment;
  if (undeclared.length > 0) reading.problems.push(undeclaredNames(undeclared, page));
  return reading;
}

function sayProblem(page: CompiledPage, { code, severity, parameter = '', data }: AddressProblem, text = '', suggestion?: string): Problem {
  const compiled = page.byName.get(parameter);
  const label = compiled?.declaration.label;
  const say = (of: string, given?: unknown) => sentenceOf(of, given, presentSentences());
  if (code === 'missing') return { code, severity, message: say('lacks', [parameter, label]), hint: say('lacks-hint'), parameter };
  const reason = say(code, data);
  const wanted = compiled === undefined ? undefined : expected(compiled, code, say);
  const said =
    suggestion !== undefined ? say('perhaps-meant', [reason, suggestion]) : wanted === undefined ? reason : say('should-be', wanted);
  return { code, severity, message: say('cannot-be', [label ?? parameter, quote(decodeForShow(text)), said]), parameter };
}

/** One problem for all names that the page does not declare, a warning where one was probably meant; names with “~” are Pallmist’s own. */
function undeclaredNames(undeclared: Reading['undeclared'], page: CompiledPage): Problem {
  const names = [...new Set(undeclared.map(({ name }) => decodeForShow(name)))].filter((name) => !name.startsWith('~'));
  const known = [...page.page.byName].flatMap(([name, slot]) => (slot.inPath ? [] : [name]));
  const told = names.slice(0, 5).map((name) => ({ name, near: nearest(name, known) }));
  const listed = told.map(({ name, near }) => quote(name) + (near === undefined ? '' : ` (perhaps “${near}” was meant)`)).join(', ');
  return {
    code: 'undeclared',
    severity: told.some(({ near }) => near !== undefined) ? 'warning' : 'note',
    message:
      names.length === 0
        ? 'The address carries names of Pallmist’s own.'
        : `The page does not know ${listed}${names.length > 5 ? ' and others' : ''}.`,
    hint: 'It is ignored.',
  };
}

const nothing = (status: 'gone' | 'unknown-page' | 'malformed', code: string, message: string, hint: string): Reading => ({
  status,
  values: {},
  parameters: [],
  problems: [{ code, severity: 'error', message, hint }],
  undeclared: [],
  former: false,
});
