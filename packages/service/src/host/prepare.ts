import {
  admissionOf,
  allParameterTypes,
  Evaluator,
  pageScopeTypes,
  scopeBeforeLoad,
  arrive,
  celWith,
  evaluateCel,
  followBack,
  formParts,
  ownNames,
  ownValue,
  passGate,
  planLoad,
  quote,
  readAddress,
  reasonIn,
  rejectValue,
  signInAddress,
  todayIn,
  SealBook,
  showPage,
  writeAddress,
  type Circumstances,
  type CompiledApp,
  type CompiledPage,
  type FormState,
  type PageData,
  type PageDefinition,
  type PageMaterial,
  type Passage,
  type Person,
  type Reading,
  type Reason,
  type ShowTools,
} from '@pallmist/core';
import type { Request, Response } from 'express';
import { mayHoldSealed, type Sealer } from '../seals/sealer.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/open-store.ts';
import { cookieNames, readCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';
import { loadLists, loadRecords, recordsOf } from './load.ts';
import { message, missingMessage, readingMessage, type StatusMessage } from './messages.ts';
import { PreviousPages } from './previous-pages.ts';
import { firstAfterSignIn } from './sign-in.ts';
import { openApp, validDays, type OpenedApp } from './sealed-app.ts';
import { VisitMemory } from './visit.ts';

export const tools: ShowTools = { cel: evaluateCel, types: allParameterTypes, forms: formParts };

/** Where to go instead of to a page, or what to say instead of showing it. */
export type Elsewhere = { redirect: { status: 301 | 303; to: string }; signIn?: true } | { say: StatusMessage };

/** A page whose address is read and whose gate is passed; nothing is loaded yet. */
export interface Admitted {
  name: string;
  page: PageDefinition;
  compiled: CompiledPage;
  reading: Reading;
  circumstances: Circumstances;
  /** Which rules for arrivals held, by number. */
  held: number[];
  book: SealBook;
  /** Whom the link of a mail would let in here. */
  entering?: NonNullable<PageMaterial['entering']>;
  /** Whether another request for the same address, in the same circumstances, gets the same. */
  repeats: boolean;
}

/** A page with its data. */
export interface Loaded {
  page: PageDefinition;
  material: PageMaterial;
  book: SealBook;
}

/** How a page is asked for: as a document, by the browser for its material, or by sending one of its forms. */
export type AskedAs = 'document' | 'material' | 'form';

/** Reads the address, asks the gate, loads: everything before a page is shown. */
export class Preparer {
  readonly #store: Store;
  readonly #previous: PreviousPages;
  readonly #visit: VisitMemory;
  readonly #sealer: Sealer;

  constructor(store: Store, settings: Settings, sealer: Sealer) {
    this.#store = store;
    this.#previous = new PreviousPages(settings);
    this.#sealer = sealer;
    this.#visit = new VisitMemory(settings, store.arrivals);
  }

  /** Everything before a page is shown. */
  async prepare(hosted: HostedApp, request: Request, response: Response, as: AskedAs): Promise<Loaded | Elsewhere> {
    const admitted = await this.admit(hosted, request, response, as);
    return 'page' in admitted ? this.load(hosted, admitted, request) : admitted;
  }

  /** Reads the address and asks the gate. */
  async admit(hosted: HostedApp, request: Request, response: Response, as: AskedAs): Promise<Admitted | Elsewhere> {
    const full = as === 'document' ? this.#visit.takeArrival(hosted, request, response) : undefined;
    const address = full ?? request.originalUrl;
    const { compiled: app, book } = await this.#opened(hosted, address);
    const reading = readAddress(app, address);
    const page = reading.page === undefined ? undefined : hosted.definition.pages[reading.page];
    const compiled = app.pages.get(reading.page ?? '');
    if (reading.page === undefined || !page || !compiled) return { say: readingMessage(hosted, reading) };
    const person = await this.person(hosted, request);
    const entering = await this.#entering(hosted, reading);
    if (entering === 'ended') {
      const to = person ? firstAfterSignIn(hosted, person) : signInAddress(app, reading.page, undefined, 'ended');
      return { redirect: { status: 303, to } };
    }
    if (person && as === 'document' && reading.page === hosted.definition.signIn?.page && reasonIn(reading) === 'needed') {
      // Signed in already: straight to where one wanted to go.
      return {
        redirect: { status: 303, to: followBack(app, reading.page, ownValue(reading, ownNames.back)) ?? firstAfterSignIn(hosted, person) },
      };
    }
    const passage = this.#passage(hosted, page, reading, person);
    if (passage !== 'admitted') return this.#turnAway(hosted, request, reading, passage);
    if (reading.status !== 'page') return { say: readingMessage(hosted, reading) };
    if (reading.former) return { redirect: { status: 301, to: todaysAddress(app, reading) } };

    const previous = this.#previous.of(hosted, request, response, reading.page, as === 'document');
    const circumstances: Circumstances = {
      today: todayIn(hosted.definition.timeZone ?? 'UTC'),
      visit: compiled.leavesAddress
        ? await this.#visit.remember(hosted, reading, request, response)
        : this.#visit.remembered(hosted, request),
      ...(person ? { person } : {}),
      ...(previous ? { previous } : {}),
    };
    const stated = new Set(reading.parameters.flatMap(({ name, text }) => (text === undefined ? [] : [name])));
    const arrival = arrive(hosted.definition, page, compiled, { values: reading.values, stated }, circumstances, evaluateCel);
    if (as === 'document' && full === undefined) {
      const to = this.#settledAddress(app, reading, arrival.values, stated);
      if (to !== undefined && to !== request.originalUrl) {
        this.#visit.keepArrival(hosted, to, address, response);
        return { redirect: { status: 303, to } };
      }
    }
    return {
      name: reading.page,
      page,
      compiled,
      reading: { ...reading, values: arrival.values },
      circumstances,
      held: arrival.held,
      book,
      ...(entering ? { entering } : {}),
      repeats:
        entering === undefined &&
        full === undefined &&
        readCookie(request, cookieNames.heldForm) === undefined &&
        !hosted.part(reading.page).sealed,
    };
  }

  /** Loads what an admitted page needs. */
  async load(hosted: HostedApp, admitted: Admitted, request: Request): Promise<Loaded | Elsewhere> {
    const { name, page, circumstances, held, book } = admitted;
    const { data, settled, missing } = this.#load(hosted, admitted.compiled, page, admitted.reading, circumstances);
    if (missing) return { say: missingMessage(hosted, name, missing) };
    const part = hosted.part(name);
    const forms = await this.#heldForms(hosted, request, name);
    const material: PageMaterial = {
      ...circumstances,
      app: part.app,
      programs: part.programs,
      cel: part.cel,
      packed: part.packed,
      name,
      page,
      reading: settled,
      data,
      draft: hosted.draft,
      ...(admitted.entering ? { entering: admitted.entering } : {}),
      ...(held.length > 0 ? { arrival: held } : {}),
      ...(forms ? { forms } : {}),
    };
    return { page, book, material: part.sealed ? await this.#seal(hosted, material, book) : material };
  }

  /** Whom the link of a mail lets in; `ended` when it does not any more. Nothing is used up by looking. */
  async #entering(hosted: HostedApp, reading: Reading): Promise<PageMaterial['entering'] | 'ended'> {
    const { app, signIn } = hosted.definition;
    const token = signIn?.byMail && reading.page === signIn.page ? ownValue(reading, ownNames.enter) : undefined;
    if (token === undefined) return undefined;
    const login = await this.#store.entryLinks.login(hosted.scope, token);
    const person = login === undefined ? undefined : await this.#store.people.find(app, login);
    return person ? { name: person.name, token } : 'ended';
  }

  /** Asks the gate; records are loaded for it only where its condition names them. */
  #passage(hosted: HostedApp, page: PageDefinition, reading: Reading, person: Person | undefined): Passage {
    const admission = admissionOf(page.admit, hosted.definition.gates);
    return passGate(admission, person, (condition) => {
      const circumstances = { today: todayIn(hosted.definition.timeZone ?? 'UTC'), visit: {}, ...(person ? { person } : {}) };
      const plan = planLoad(hosted.definition, page, reading.values, circumstances, evaluateCel);
      const records = condition.includes('record')
        ? loadRecords(this.#store.records, recordsOf(this.#store, hosted), hosted.definition, plan).records
        : {};
      const scope = { ...scopeBeforeLoad(hosted.definition, reading.values, circumstances), record: records };
      return new Evaluator(scope, pageScopeTypes(hosted.definition, page), evaluateCel).holds(condition);
    });
  }

  /** To the sign-in page, which remembers the way; or, with an account that is not enough, a page that says so. */
  #turnAway(hosted: HostedApp, request: Request, reading: Reading, passage: Passage): Elsewhere {
    const signInPage = hosted.definition.signIn?.page ?? '';
    const wayIn = (why: Reason) => signInAddress(hosted.compiled, signInPage, request.originalUrl, why, reading.values);
    if (passage === 'sign-in') return { redirect: { status: 303, to: wayIn('needed') }, signIn: true };
    const refused = message(hosted, 403, 'This page is not open to you', ['The account that you are signed in with may not see it.']);
    refused.message.ways.unshift({ text: 'Sign in with another account', href: wayIn('other') });
    return { say: refused };
  }

  /** The app’s addresses, with the sealed values of this one opened. */
  async #opened(hosted: HostedApp, address: string): Promise<OpenedApp> {
    if (!mayHoldSealed(address)) return { compiled: hosted.compiled, book: new SealBook() };
    return openApp(hosted.definition, this.#sealer, address);
  }

  /** Shows the page once to learn what its links need sealed, and encloses that. */
  async #seal(hosted: HostedApp, material: PageMaterial, book: SealBook): Promise<PageMaterial> {
    showPage(material, { ...tools, seals: book });
    await this.fill(hosted, book);
    return { ...material, seals: book.values };
  }

  /** Seals what is wanted of a book. */
  fill(hosted: HostedApp, book: SealBook): Promise<boolean> {
    return this.#sealer.fill(hosted.definition.app, book, (page, parameter) => validDays(hosted.definition, page, parameter));
  }

  /** Who is signed in to this app in this browser. */
  async person(hosted: HostedApp, request: Request) {
    const login = await this.#store.sessions.login(hosted.scope, readCookie(request, cookieNames.person));
    return login === undefined ? undefined : this.#store.people.find(hosted.definition.app, login);
  }

  /** Where an address leads to that holds what acts once, is remembered, or sets view state; undefined where it stays. */
  #settledAddress(app: CompiledApp, reading: Reading, values: Reading['values'], stated: ReadonlySet<string>): string | undefined {
    const { page = '' } = reading;
    const leaves = [...stated].some((name) => {
      const parameter = app.pages.get(page)?.byName.get(name);
      return parameter?.declaration.once === true || parameter?.remembered === true;
    });
    const write = (given: Reading['values']) => writeAddress(app, page, given, { afterArrival: true }).address;
    const to = write(values);
    return leaves || to !== write(reading.values) ? to : undefined;
  }

  /** What somebody had typed when their session had ended, for the page that they have come back to. */
  async #heldForms(hosted: HostedApp, request: Request, page: string): Promise<Record<string, FormState> | undefined> {
    const token = readCookie(request, cookieNames.heldForm);
    const held = token === undefined ? undefined : await this.#store.heldForms.find(hosted.scope, token);
    if (held === undefined || readAddress(hosted.compiled, held.address).page !== page) return undefined;
    return {
      [held.form]: {
        values: held.texts,
        problems: {},
        problem: 'Your session had ended, so this was not saved. Here it is again: please send it once more.',
      },
    };
  }

  /**
   * Loads what the page needs. A record that there is not is treated as any wrong value: where the page can do without
   * it, the page is shown without it and says so.
   */
  #load(hosted: HostedApp, compiled: CompiledPage, page: PageDefinition, reading: Reading, circumstances: Circumstances) {
    let settled = reading;
    const { programs, fields } = hosted.part(reading.page ?? '');
    const cel = celWith(programs, evaluateCel);
    const app = recordsOf(this.#store, hosted);
    for (;;) {
      const planWith = (records?: PageData['records']) => planLoad(hosted.definition, page, settled.values, circumstances, cel, records);
      const { records, missing } = loadRecords(this.#store.records, app, hosted.definition, planWith(), fields);
      const data = { records, ...loadLists(this.#store.records, app, hosted.definition, planWith(records), fields) };
      const first = missing[0];
      if (first === undefined) return { data, settled };
      const label = page.parameters?.[first.parameter]?.label ?? first.parameter;
      settled = rejectValue(
        compiled,
        settled,
        first.parameter,
        'unknown-record',
        `“${label}” cannot be ${quote(first.key)}: There is no such record.`,
      );
      if (settled.status !== 'page' || settled.values[first.parameter] !== undefined) return { data, settled, missing: first };
    }
  }
}

/** Today's address of a page that was asked for by a former one; names that nobody declared stay. */
function todaysAddress(app: CompiledApp, { page = '', values, undeclared }: Reading): string {
  const address = writeAddress(app, page, values).address ?? (app.mount || '/');
  const rest = undeclared.map(({ name, text }) => `${name}=${text}`).join('&');
  return rest === '' ? address : `${address}${address.includes('?') ? '&' : '?'}${rest}`;
}
