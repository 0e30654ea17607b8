import {
  own,
  admissionOf,
  appTexts,
  arrive,
  Evaluator,
  evaluateCel,
  followBack,
  ownNames,
  ownValue,
  pageScopeTypes,
  passGate,
  planLoad,
  readAddress,
  reasonIn,
  rootsOf,
  scopeBeforeLoad,
  signInAddress,
  writeAddress,
  type RequestContext,
  type CompiledApp,
  type PagePayload,
  type Passage,
  type Person,
  type Reading,
  type Reason,
} from '@pallmist/app';
import type { Request } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Store } from '../store/store.ts';
import { loadRecords, recordSpace } from './load-data.ts';
import { preferredLanguage } from './preferred-language.ts';
import { message, readingMessage, sayFor } from './messages.ts';
import type { PreviousPages } from './previous-pages.ts';
import { firstAfterSignIn } from './sign-in.ts';
import { hasNothingWrong, leads, says, type Admitted, type PageOutcome, type ReadRequest, type Step } from './steps.ts';
import type { VisitMemory } from './visit.ts';

export interface AdmitParts {
  store: Store;
  cookies: AppCookies;
  visit: VisitMemory;
  previous: PreviousPages;
}

/** Asks the gate, or leads elsewhere: to sign in, to today’s address, to where what acts once has acted. */
export async function admit(read: ReadRequest, { store, cookies, visit, previous }: AdmitParts): Promise<Step<Admitted>> {
  const { hosted, request, response, as, app, reading, name, page, compiled, arrivedBy } = read;
  const { signIn } = hosted.definition;
  const person = await personOf(store, cookies, hosted, request);
  const entering = await enteringBy(store, hosted, reading);
  if (entering === 'link-expired')
    return leads(303, person ? firstAfterSignIn(hosted, person) : signInAddress(app, name, undefined, 'link-expired'));
  const [why, wanted] = [reasonIn(reading), ownValue(reading, ownNames.wanted)];
  if (person && as === 'document' && name === signIn?.page && (why === 'sign-in-needed' || (why === undefined && wanted !== undefined))) {
    // Signed in already: straight to where the person meant to go.
    return leads(303, followBack(app, name, wanted) ?? firstAfterSignIn(hosted, person));
  }
  const passage = await passageOf(read, store, person);
  if (passage !== 'admitted') return { elsewhere: turnAway(hosted, request, reading, passage) };
  if (reading.status !== 'found') return says(readingMessage(hosted, reading, request.originalUrl));
  // The page shows what is wrong with its address. A redirect would lose that.
  if (hasNothingWrong(reading)) {
    if (reading.former) return leads(301, todaysAddress(app, reading));
    const preferred = as === 'document' && arrivedBy === undefined ? preferredLanguage(read, cookies) : undefined;
    if (preferred !== undefined) return leads(303, preferred);
    const tidy = as === 'document' && arrivedBy === undefined ? tidyAddress(app, reading, request.originalUrl) : undefined;
    if (tidy !== undefined) return leads(303, tidy);
  }

  const before = previous.of(hosted, request, response, name, as === 'document');
  const requestContext: RequestContext = {
    today: hosted.today(),
    visit: compiled.leavesAddress ? await visit.remember(hosted, reading, request, response) : visit.remembered(hosted, request),
    ...(person ? { person } : {}),
    ...(before ? { previous: before } : {}),
  };
  const stated = new Set(reading.parameters.flatMap((parameter) => (parameter.text === undefined ? [] : [parameter.name])));
  const arrival = arrive(hosted.definition, page, compiled, { values: reading.values, stated }, requestContext, evaluateCel);
  if (as === 'document' && arrivedBy === undefined) {
    const to = settledAddress(app, reading, arrival.values, stated);
    if (to !== undefined && to !== request.originalUrl) {
      visit.keepArrival(hosted, to, request.originalUrl, response);
      return leads(303, to);
    }
  }
  return {
    ...read,
    reading: { ...reading, values: arrival.values },
    requestContext,
    held: arrival.held,
    entering,
    repeats:
      entering === undefined &&
      arrivedBy === undefined &&
      (['held', 'said'] as const).every((kind) => cookies.read(hosted, request, kind) === undefined),
  };
}

/** Who is signed in to this app in this browser. */
export async function personOf(store: Store, cookies: AppCookies, hosted: HostedApp, request: Request): Promise<Person | undefined> {
  const login = await store.sessions.login(hosted.scope, cookies.read(hosted, request, 'person'));
  return login === undefined ? undefined : store.people.find(hosted.definition.app, login);
}

/** Whom the link of a mail lets in; `ended` when it does not any more. Nothing is used up by looking. */
async function enteringBy(store: Store, hosted: HostedApp, reading: Reading): Promise<PagePayload['entering'] | 'link-expired'> {
  const { app, signIn } = hosted.definition;
  const token = signIn?.byMail && reading.page === signIn.page ? ownValue(reading, ownNames.enter) : undefined;
  if (token === undefined) return undefined;
  const login = await store.entryLinks.login(hosted.scope, token);
  const person = login === undefined ? undefined : await store.people.find(app, login);
  return person ? { name: person.name, token } : 'link-expired';
}

/** Asks the gate; records are loaded for it only where its condition names them. */
async function passageOf({ hosted, page, reading }: ReadRequest, store: Store, person: Person | undefined): Promise<Passage> {
  const { definition } = hosted;
  const admission = admissionOf(page.admit, definition.gates);
  const condition = typeof admission === 'object' ? admission.when : undefined;
  if (condition === undefined) return passGate(admission, person, () => false);
  const requestContext = { today: hosted.today(), visit: {}, ...(person ? { person } : {}) };
  const plan = planLoad(definition, page, reading.values, requestContext, evaluateCel);
  const record = rootsOf(condition).has('record')
    ? (await loadRecords(store.records, recordSpace(store, hosted), definition, plan, undefined)).records
    : {};
  const scope = { ...scopeBeforeLoad(definition, reading.values, requestContext), record };
  const evaluator = new Evaluator(scope, pageScopeTypes(definition, page), evaluateCel);
  return passGate(admission, person, (wanted) => evaluator.holds(wanted));
}

/** To the sign-in page, which remembers the way; or, with an account that is not enough, a page that says so. */
function turnAway(hosted: HostedApp, request: Request, reading: Reading, passage: Passage): PageOutcome {
  const signInPage = hosted.definition.signIn?.page ?? '';
  const wayIn = (why: Reason) => signInAddress(hosted.compiled, signInPage, request.originalUrl, why, reading.values);
  if (passage === 'sign-in') return { redirect: { status: 303, to: wayIn('sign-in-needed') }, needsSignIn: true };
  const admission = admissionOf(own(hosted.definition.pages, reading.page ?? '')?.admit, hosted.definition.gates);
  const reason = typeof admission === 'object' ? admission.reason : undefined;
  const refused = message(
    hosted,
    403,
    'This page is not open to you',
    [
      reason === undefined
        ? 'The account that you are signed in with may not see it.'
        : { said: appTexts(hosted.definition, reading.values)(reason) },
    ],
    reading.values,
  );
  refused.message.ways.unshift({ text: sayFor(hosted, reading.values)('Sign in with another account'), href: wayIn('other-account') });
  return { say: refused };
}

/** Where an address leads to that holds what acts once, is remembered, or sets view state; undefined where it stays. */
function settledAddress(app: CompiledApp, reading: Reading, values: Reading['values'], stated: ReadonlySet<string>): string | undefined {
  const { page = '' } = reading;
  const leaves = [...stated].some((name) => {
    const parameter = app.pages.get(page)?.byName.get(name);
    return parameter?.declaration.once === true || parameter?.remembered === true;
  });
  const write = (given: Reading['values']) => writeAddress(app, page, given, { afterArrival: true }).address;
  const to = write(values);
  return leaves || to !== write(reading.values) ? to : undefined;
}

/**
 * The written form of an address that a browser without JavaScript built from a form, with undeclared parameters at its end.
 * Undefined if the address is written like that already.
 */
function tidyAddress(app: CompiledApp, reading: Reading, given: string): string | undefined {
  const written = writeAddress(app, reading.page ?? '', reading.values).address;
  if (written === undefined) return undefined;
  const strangers = new Set(reading.undeclared.map(({ name }) => name));
  const [path = '', query = ''] = given.split('?');
  const own = query.split('&').filter((pair) => pair !== '' && !strangers.has(pair.split('=')[0] ?? ''));
  const asGiven = own.length === 0 ? path : `${path}?${own.join('&')}`;
  return asGiven === written || asGiven === `${written}/` ? undefined : todaysAddress(app, reading);
}

/** Today's address of a page that was asked for by a former one; names that nobody declared stay. */
function todaysAddress(app: CompiledApp, { page = '', values, undeclared }: Reading): string {
  const address = writeAddress(app, page, values).address ?? (app.mount || '/');
  const rest = undeclared.map(({ name, text }) => `${name}=${text}`).join('&');
  return rest === '' ? address : `${address}${address.includes('?') ? '&' : '?'}${rest}`;
}

/** Whether the form of a page was sent to an address that reads as one of the app’s pages. */
export const pageAt = (hosted: HostedApp, address: string): string | undefined => readAddress(hosted.compiled, address).page;
