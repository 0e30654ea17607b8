import {
  own,
  admissionOf,
  appTexts,
  celWith,
  dataToSend,
  Evaluator,
  evaluateCel,
  fieldsOn,
  isSettledBeforeLoad,
  labelsOf,
  listedRecords,
  pageScopeTypes,
  countedFields,
  optionSources,
  ownNames,
  ownValue,
  planLoad,
  quote,
  sentenceOf,
  sentencesIn,
  languageOf,
  readAddress,
  rejectItems,
  rejectValue,
  scopeBeforeLoad,
  settlePage,
  showPage,
  writeAddress,
  type FormState,
  type PageData,
  type PageDefinition,
  type PageFields,
  type PagePayload,
  type SealBook,
} from '@pallmist/app';
import { validDays } from '../apps/sealed-values.ts';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Sealer } from '../seals/sealer.ts';
import type { Stores } from '../store/store.ts';
import { loadListed, loadLists, loadRecords, recordSpace, strangers, type MissingRecord, type ListSources } from './load-data.ts';
import { todaysKeys } from './former-keys.ts';
import { missingMessage, sayFor } from './messages.ts';
import { nearKey } from './repair.ts';
import { takeSaid } from './said.ts';
import { hasNothingWrong, leads, says, tools, type Admitted, type Loaded, type Step } from './steps.ts';

const fieldsOfPages = new WeakMap<PageDefinition, PageFields>();

/** The fields that the service reads of a page’s records; the same for every request. */
function serviceFields({ definition }: HostedApp, page: PageDefinition): PageFields {
  let fields = fieldsOfPages.get(page);
  if (fields === undefined) fieldsOfPages.set(page, (fields = fieldsOn(definition, page, 'service')));
  return fields;
}

const listsOfPages = new WeakMap<PageDefinition, ListSources>();

/** What is loaded of lists beyond their rows; the same for every request. */
function listSources({ definition }: HostedApp, page: PageDefinition): ListSources {
  let sources = listsOfPages.get(page);
  if (sources === undefined) listsOfPages.set(page, (sources = { options: optionSources(definition, page), counted: countedFields(page) }));
  return sources;
}

/** Variants of pages by what conditions hide before anything is loaded, so that each is the same object for the same app. */
const variants = new WeakMap<PageDefinition, Map<string, PageDefinition>>();

function sameVariant(page: PageDefinition, settled: { page: PageDefinition; variant: string }): PageDefinition {
  let known = variants.get(page);
  if (known === undefined || known.size > 100) variants.set(page, (known = new Map<string, PageDefinition>()));
  const present = known.get(settled.variant);
  if (present === undefined) known.set(settled.variant, settled.page);
  return present ?? settled.page;
}

export interface LoadParts {
  /** Those of a transaction, where what is loaded decides about what is saved. */
  store: Pick<Stores, 'records' | 'heldForms'>;
  cookies: AppCookies;
  sealer: Sealer;
}

/**
 * Loads what an admitted page needs, and settles what it hides: conditions that name more than the address and the
 * language are the service’s, and nothing of what they hide is sent.
 */
export async function load(admitted: Admitted, { store, cookies, sealer }: LoadParts): Promise<Step<Loaded>> {
  const { hosted, name, page, requestContext, held, book, request } = admitted;
  const { definition } = hosted;
  const before = new Evaluator(
    scopeBeforeLoad(definition, admitted.reading.values, requestContext),
    pageScopeTypes(definition, page),
    evaluateCel,
  );
  const early = settlePage(page, (condition) => (isSettledBeforeLoad(condition) ? before.holds(condition) : undefined));
  const earlyPage = sameVariant(page, early);
  const loaded = await loadData(admitted, earlyPage, store);
  if ('to' in loaded) return leads(loaded.forGood ? 301 : 303, loaded.to);
  if (loaded.missing) return says(missingMessage(hosted, name, loaded.missing, admitted.reading.values));
  const { data, reading } = loaded;

  const after = new Evaluator(
    {
      ...before.scope,
      param: reading.values,
      record: data.records,
      rows: each(data.rows, (found) => found.rows),
      total: each(data.rows, (found) => found.total),
      figures: each(data.rows, (found) => found.figures ?? {}),
      label: labelsOf(definition, page, reading.values, data, appTexts(definition, reading.values)),
    },
    pageScopeTypes(definition, page),
    evaluateCel,
  );
  const late = settlePage(earlyPage, (condition) => after.holds(condition));
  const variant = `${early.variant}/${late.variant}`;
  const part = hosted.part(name, { page: late.page, variant }, held);
  const said = admitted.as === 'document' ? takeSaid(cookies, hosted, request, admitted.response) : undefined;
  const gateReason = name === definition.signIn?.page ? reasonOfWanted(hosted, admitted.reading) : undefined;
  const forms = await heldForms(admitted, store, cookies);
  const asks = hosted.asks(name);
  const common = {
    ...requestContext,
    name,
    reading,
    packed: part.packed,
    draft: hosted.trial,
    ...(admitted.entering ? { entering: admitted.entering } : {}),
    ...(held.length > 0 ? { arrival: held } : {}),
    ...(forms ? { forms } : {}),
    ...(said ? { said } : {}),
    ...(gateReason === undefined ? {} : { gateReason }),
  };
  let payload: PagePayload = {
    ...common,
    app: part.app,
    page: part.page,
    programs: part.programs,
    cel: part.cel,
    data: dataToSend(data, part),
    ...(asks.length > 0 ? { asks: [...asks] } : {}),
  };
  if (part.sealed) payload = await sealed(hosted, payload, book, sealer);
  const service = { page: part.service.page, payload: { ...common, app: part.service.app, page: part.service.page, cel: true, data } };
  return { ...admitted, repeats: admitted.repeats && !part.sealed && said === undefined, reading, data, payload, service, request };
}

/** What the gate of a page says that was wanted before sign-in. The address names the page alone: the text is the app's. */
function reasonOfWanted({ definition, compiled }: HostedApp, reading: Admitted['reading']): string | undefined {
  const wanted = ownValue(reading, ownNames.wanted);
  const page = wanted === undefined ? undefined : readAddress(compiled, wanted).page;
  const admission = page === undefined ? undefined : admissionOf(own(definition.pages, page)?.admit, definition.gates);
  const reason = typeof admission === 'object' ? admission.reason : undefined;
  return reason === undefined ? undefined : appTexts(definition, reading.values)(reason);
}

const each = <Value, Result>(all: Record<string, Value>, pick: (value: Value) => Result) =>
  Object.fromEntries(Object.entries(all).map(([name, value]) => [name, pick(value)]));

/**
 * Loads a page’s data. A record that there is not is treated as any wrong value: where the page can do without it, the
 * page is shown without it and says so; a key that differs from one by capitals alone leads to that.
 */
async function loadData(
  { hosted, app, name, as, compiled, requestContext, reading: given }: Admitted,
  page: PageDefinition,
  store: LoadParts['store'],
): Promise<{ data: PageData; reading: Admitted['reading']; missing?: MissingRecord } | { to: string; forGood: boolean }> {
  const { definition } = hosted;
  const fields = serviceFields(hosted, page);
  const space = recordSpace(store, hosted);
  const cel = celWith(undefined, evaluateCel);
  for (let reading = given; ;) {
    const planWith = (records?: PageData['records']) => planLoad(definition, page, reading.values, requestContext, cel, records);
    const plan = planWith();
    const { records, missing } = await loadRecords(store.records, space, definition, plan, fields);
    const listed = await loadListed(store.records, space, definition, listedRecords(definition, page, reading.values));
    const first = missing[0] ?? (await strangers(store.records, space, definition, page, plan, reading.values))[0];
    const unknown = listed.unknown[0];
    const say = (code: string, data?: unknown) => sentenceOf(code, data, sentencesIn(languageOf(definition, reading.values)));
    const labelOf = (parameter: string) =>
      appTexts(definition, reading.values)(own({ ...definition.parameters, ...page.parameters }, parameter)?.label ?? parameter);
    // To lead elsewhere would lose what else is wrong without a word.
    const mayLead = as === 'document' && hasNothingWrong(reading);
    if (first === undefined && unknown !== undefined) {
      const { from = '', keys: named = [] } = own(listedRecords(definition, page, reading.values), unknown.parameter) ?? {};
      const todays = await todaysKeys(store.records, space, definition, from, undefined, unknown.keys);
      if (mayLead && todays.size > 0) {
        const list = named.map((key) => todays.get(key) ?? key);
        const { address: to } = writeAddress(app, name, { ...reading.values, [unknown.parameter]: list });
        if (to !== undefined) return { to, forGood: true };
      }
      const keys = unknown.keys.slice(0, 5).map((key) => quote(key));
      const message = say('shown-without', [labelOf(unknown.parameter), keys]);
      reading = rejectItems(app, compiled, reading, unknown.parameter, unknown.kept, { code: 'unknown-record', message });
      if (reading.status !== 'found') {
        const gone = { parameter: unknown.parameter, key: unknown.keys[0] ?? '', from, by: undefined };
        return { data: { records, rows: {}, options: {} }, reading, missing: gone };
      }
      continue;
    }
    if (first === undefined) {
      const titles = Object.fromEntries(Object.keys(plan.lists).map((name) => [name, own(listed.titles, name) ?? []]));
      const lists = await loadLists(store.records, space, definition, planWith(records), listSources(hosted, page), fields);
      return { data: { records, ...lists, ...(Object.keys(titles).length > 0 ? { titles } : {}) }, reading };
    }
    if (mayLead && first.tiedTo === undefined) {
      const { from, by, key } = first;
      const formerly = (await todaysKeys(store.records, space, definition, from, by, [key])).get(key);
      const meant = formerly ?? (await nearKey(store.records, space, definition.collections ?? {}, from, key, by));
      const { address: to } = meant === undefined ? {} : writeAddress(app, name, { ...reading.values, [first.parameter]: meant });
      if (to !== undefined) return { to, forGood: formerly !== undefined };
    }
    const code = first.tiedTo === undefined ? 'unknown-record' : 'not-tied';
    const sentence = say('cannot-be', [labelOf(first.parameter), quote(first.key), say(code, first.tiedTo?.map(labelOf))]);
    reading = rejectValue(app, compiled, reading, first.parameter, code, sentence);
    if (reading.status !== 'found' || own(reading.values, first.parameter) !== undefined)
      return { data: { records, rows: {}, options: {} }, reading, missing: first };
  }
}

/** What was typed when the session had ended, for the page that its person has come back to. */
async function heldForms(
  { hosted, request, requestContext, name, reading }: Admitted,
  store: LoadParts['store'],
  cookies: AppCookies,
): Promise<Record<string, FormState> | undefined> {
  const token = cookies.read(hosted, request, 'held');
  const held = token === undefined ? undefined : await store.heldForms.find(hosted.scope, token, requestContext.person?.login);
  if (held === undefined || readAddress(hosted.compiled, held.address).page !== name) return undefined;
  return {
    [held.form]: {
      values: held.texts,
      problems: {},
      problem: sayFor(hosted, reading.values)('Your session had ended, so this was not saved. Here it is again: please send it once more.'),
    },
  };
}

/** Shows the page once to learn what its links need sealed, and encloses that. */
async function sealed(hosted: HostedApp, payload: PagePayload, book: SealBook, sealer: Sealer): Promise<PagePayload> {
  showPage(payload, { ...tools, seals: book });
  await fillBook(hosted, book, sealer);
  return { ...payload, seals: book.values };
}

/** Seals what is wanted of a book. @returns whether there was anything */
export const fillBook = (hosted: HostedApp, book: SealBook, sealer: Sealer): Promise<boolean> =>
  sealer.fill(hosted.definition.app, book, (page, parameter) => validDays(hosted.definition, page, parameter));
