import {
  claimOf,
  decodeForShow,
  readAddress,
  readValues,
  type Claim,
  type CompiledApp,
  type CompiledParameter,
  type ParameterReading,
  type ReadValues,
  type Reading,
} from '@pallmist/address/pages';
import type { Problem } from '@pallmist/address/declare';
import type { AppDefinition } from '../../definition/app-definition.ts';

/**
 * What becomes of an address.
 * - `silent`: it opens, and means something else;
 * - `gone`: it opens nothing;
 * - `refused`: its page opens for other values, and refuses this one;
 * - `noted`: its page opens without the value, and says so.
 */
export type Fate = 'silent' | 'gone' | 'refused' | 'noted';

export type DifferenceKind =
  | 'app-moved'
  | 'no-page'
  | 'other-page'
  | 'missing-value'
  | 'value-refused'
  | 'value-ignored'
  | 'other-value'
  | 'other-default'
  | 'other-records'
  | 'leads-elsewhere'
  | 'tied';

/** One way in which an address means something else than it meant. */
export interface Difference {
  fate: Fate;
  kind: DifferenceKind;
  /** The parameter by its earlier name, or by today’s where it is new. */
  parameter?: string;
  /** Texts of the value: as it was meant, and as it would be read. */
  before?: string;
  after?: string;
  /** The page that opens. */
  page?: string;
  /** Why it is refused, in words. */
  reason?: string;
}

/** A state of an app as a reader of addresses. */
export interface Reader {
  definition: Pick<AppDefinition, 'pages' | 'collections'>;
  compiled: CompiledApp;
}

/** An earlier state of a page as a reader of its addresses. */
export interface FormerReader {
  page: string;
  compiled: CompiledApp;
  collections: Readonly<Record<string, { keyField: string }>>;
}

/**
 * Reads an address with an earlier edition and with today's draft, and tells where the two do not mean the same.
 * @returns undefined where the earlier edition did not take the address
 */
export function judge(then: FormerReader, now: Reader, address: string): Difference[] | undefined {
  // Most addresses mean the same in both editions. Comparing values alone shows that quickly.
  const plainly = readValues(then.compiled, address);
  if (plainly?.isRight !== true || plainly.page !== then.page) return undefined;
  if (agrees(then, now, plainly, readValues(now.compiled, address))) return [];
  const was = readAddress(then.compiled, address);
  const is = readAddress(now.compiled, address);
  const page = is.page === undefined ? undefined : now.compiled.pages.get(is.page);
  // That it is gone, the builder has declared.
  if (page === undefined) return is.status === 'gone' ? [] : [{ fate: 'gone', kind: 'no-page' }];
  const claim = claimOf(now.compiled, address) as Claim;
  const same = page.name === then.page || (now.definition.pages[page.name]?.formerNames ?? []).includes(then.page);
  // A former address names its heir: that is what the builder has declared.
  if (!same && !claim.former) return [{ fate: 'silent', kind: 'other-page', page: page.name }];
  const differences: Difference[] = [];
  const met = new Set<ParameterReading>();
  const former = then.compiled.pages.get(then.page);
  for (const [index, before] of was.parameters.entries()) {
    const declared = former?.parameters[index] as CompiledParameter;
    const after = counterpart(before, was, is, claim.path, page.byName);
    if (after !== undefined) met.add(after);
    const difference = after === undefined ? lost(before) : compareValue(then, now, declared, before, after, page.byName.get(after.name));
    if (difference !== undefined) differences.push(difference);
  }
  for (const { name, problem } of is.parameters)
    if (problem?.code === 'missing' && ![...met].some((one) => one.name === name))
      differences.push({ fate: 'refused', kind: 'missing-value', parameter: name });
  return differences;
}

/** Whether two readings name the same page, and give each of its earlier parameters the same value by the same name. */
function agrees(then: FormerReader, now: Reader, was: ReadValues, is: ReadValues | undefined): boolean {
  if (is?.isRight !== true || is.page !== was.page) return false;
  const today = now.compiled.pages.get(is.page)?.byName;
  return (then.compiled.pages.get(was.page)?.parameters ?? []).every((declared) => {
    const present = today?.get(declared.name);
    if (present === undefined) return false;
    const [before, after] = [was.values[declared.name], is.values[declared.name]];
    if (before === undefined || after === undefined) return before === after;
    return declared.plain.write(before) === present.plain.write(after) && sameRecords(then, now, declared, present);
  });
}

/** Today's reading of a parameter: by its name, by a former name, or by its place in the path. */
function counterpart(
  before: ParameterReading,
  was: Reading,
  is: Reading,
  path: readonly string[],
  parameters: ReadonlyMap<string, CompiledParameter>,
): ParameterReading | undefined {
  const named = is.parameters.find(({ name }) => name === before.name);
  if (named !== undefined) return named;
  const heir = [...parameters.values()].find(({ declaration }) => declaration.formerNames?.includes(before.name));
  const inPath = was.parameters.filter(({ place }) => place === 'path').indexOf(before);
  const wanted = heir?.name ?? (inPath === -1 ? undefined : path[inPath]);
  if (wanted === undefined || was.parameters.some(({ name }) => name === wanted)) return undefined;
  return is.parameters.find(({ name }) => name === wanted);
}

/** A parameter that is no more: what it said is ignored. */
const lost = ({ name, origin, text }: ParameterReading): Difference | undefined =>
  origin === 'given' || origin === 'blank' ? { fate: 'silent', kind: 'value-ignored', parameter: name, before: text ?? '' } : undefined;

function compareValue(
  then: FormerReader,
  now: Reader,
  declared: CompiledParameter,
  before: ParameterReading,
  after: ParameterReading,
  today: CompiledParameter | undefined,
): Difference | undefined {
  const parameter = before.name;
  const text = declared.plain.write(before.value) ?? '';
  const shown = before.value === undefined ? {} : { before: decodeForShow(text) };
  // That a value is gone, the builder has declared.
  if (after.problem?.code === 'gone-value') return undefined;
  if (after.problem !== undefined) return refusedBy(after.problem, today, { parameter, ...shown });
  if (today === undefined) return undefined;
  const present = after.value === undefined ? undefined : (today.plain.write(after.value) ?? '');
  const meant = before.value === undefined ? undefined : inTodaysForm(declared, today, text);
  if (meant !== present) {
    // The empty text is a value of its own, or says no more than to be absent does.
    const given = before.origin === 'given' || (before.origin === 'blank' && text === '');
    return {
      fate: 'silent',
      kind: given ? 'other-value' : 'other-default',
      parameter,
      ...shown,
      ...(present === undefined ? {} : { after: decodeForShow(present) }),
    };
  }
  if (before.value !== undefined && !sameRecords(then, now, declared, today))
    return { fate: 'silent', kind: 'other-records', parameter, ...shown };
  return undefined;
}

function refusedBy({ message, code }: Problem, today: CompiledParameter | undefined, told: Partial<Difference>): Difference {
  const stops = today?.refuses === true || today?.required === true || code === 'missing';
  return { fate: stops ? 'refused' : 'noted', kind: 'value-refused', reason: message, ...told };
}

/** The earlier text as today's declaration writes the value, if it is of the same type: former values count as today's. */
function inTodaysForm(declared: CompiledParameter, today: CompiledParameter, text: string): string {
  if (!sameType(declared, today)) return text;
  const value = today.plain.read(text, 0, text.length);
  return value === undefined ? text : (today.plain.write(value) ?? text);
}

const choiceOf = (type: string) => (type === 'page' ? 'choice' : type);

function sameType({ declaration: one }: CompiledParameter, { declaration: other }: CompiledParameter): boolean {
  if (choiceOf(one.type) !== choiceOf(other.type)) return false;
  if (one.type === 'range') return one.of === other.of;
  return choiceOf(one.items?.type ?? '') === choiceOf(other.items?.type ?? '');
}

/** Whether the values of two parameters name the same records. */
function sameRecords(
  then: FormerReader,
  now: Reader,
  { declaration: one }: CompiledParameter,
  { declaration: other }: CompiledParameter,
): boolean {
  const ofRecord = (declaration: typeof one) => declaration.type === 'record' || declaration.items?.type === 'record';
  if (!ofRecord(one) && !ofRecord(other)) return true;
  if (!ofRecord(one) || !ofRecord(other)) return false;
  const [was = '', is = ''] = [one.of ?? one.items?.of, other.of ?? other.items?.of];
  const collection = now.definition.collections?.[is];
  if (was !== is && collection?.formerNames?.includes(was) !== true) return false;
  const [byThen, byNow = ''] = [one.by ?? then.collections[was]?.keyField, other.by ?? collection?.keyField];
  // A former key leads to the same record.
  const keys = [byNow, ...(collection?.formerKeys ?? [])];
  return keys.some((key) => key === byThen || collection?.fields[key]?.formerNames?.includes(byThen ?? '') === true);
}
