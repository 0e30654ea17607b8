import {
  allParameterTypes,
  evaluateCel,
  passGate,
  planLoad,
  quote,
  readAddress,
  rejectValue,
  signInAddress,
  todayIn,
  writeAddress,
  type PageDefinition,
  type PageMaterial,
  type Person,
  type Reading,
} from '@pallmist/core';
import { renderMessage, renderPage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { Store } from '../store/open-store.ts';
import { cookieNames, readCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';
import { loadData } from './load.ts';
import { pruneData } from './prune.ts';
import { missingMessage, readingMessage, type StatusMessage } from './messages.ts';

/** The media type by which the browser asks for a page’s material instead of its document. */
const materialType = 'application/vnd.pallmist.material+json';

const tools = { cel: evaluateCel, types: allParameterTypes };

/** Answers requests for pages: read, gate, load, show. */
export class PageHost {
  readonly #store: Store;
  readonly #assets: Assets;

  constructor(store: Store, assets: Assets) {
    this.#store = store;
    this.#assets = assets;
  }

  /** Answers GET and HEAD for any address in an app. */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const reading = readAddress(hosted.compiled, request.originalUrl);
    const page = reading.page === undefined ? undefined : hosted.definition.pages[reading.page];
    const person = await this.person(hosted, request);
    response.setHeader('cache-control', 'private, no-cache');
    response.vary('Accept');
    response.vary('Cookie');
    if (reading.page === undefined || !page) {
      this.say(response, readingMessage(hosted, reading));
      return;
    }
    const gate = passGate(page, person);
    if (!gate.admitted) {
      const signInPage = hosted.definition.signIn?.page;
      if (signInPage !== undefined)
        response.redirect(303, signInAddress(hosted.compiled, signInPage, request.originalUrl, gate.why, reading.values));
      return;
    }
    if (reading.status !== 'page') {
      this.say(response, readingMessage(hosted, reading));
      return;
    }
    if (reading.former) {
      response.redirect(301, todaysAddress(hosted, reading));
      return;
    }
    const { data, missing, settled } = this.#load(hosted, page, reading, person);
    if (missing) {
      this.say(response, missingMessage(hosted, reading.page, missing));
      return;
    }
    const { app, cel, packed, fields } = hosted.part(reading.page);
    pruneData(data, hosted.definition, fields);
    const material: PageMaterial = {
      app,
      cel,
      packed,
      today: todayIn(hosted.definition.timeZone ?? 'UTC'),
      name: reading.page,
      page,
      reading: settled,
      data,
      draft: hosted.draft,
      ...(person ? { person } : {}),
    };
    if (request.headers.accept === materialType) response.type(materialType).send(JSON.stringify(material));
    else response.type('html').send(renderPage(material, tools, this.#assets));
  }

  /**
   * Loads what the page needs. A record that there is not is treated as any wrong value: where the page can do without
   * it, the page is shown without it and says so.
   */
  #load(hosted: HostedApp, page: PageDefinition, reading: Reading, person: Person | undefined) {
    const compiled = hosted.compiled.pages.get(reading.page ?? '');
    let settled = reading;
    for (;;) {
      const plan = planLoad(hosted.definition, page, settled.values, person, evaluateCel);
      const { data, missing } = loadData(this.#store.records, hosted.definition, plan);
      const first = missing[0];
      if (first === undefined || compiled === undefined) return { data, settled };
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

  /** Answers with a page that says what went wrong. */
  say(response: Response, { status, message }: StatusMessage): void {
    response.status(status).type('html').send(renderMessage(message, this.#assets));
  }

  /** Who is signed in to this app in this browser. */
  async person(hosted: HostedApp, request: Request): Promise<Person | undefined> {
    const login = await this.#store.sessions.login(hosted.scope, readCookie(request, cookieNames.person));
    return login === undefined ? undefined : this.#store.people.find(hosted.definition.app, login);
  }
}

/** Today's address of a page that was asked for by a former one; names that nobody declared stay. */
function todaysAddress(hosted: HostedApp, { page = '', values, undeclared }: Reading): string {
  const address = writeAddress(hosted.compiled, page, values).address ?? (hosted.compiled.mount || '/');
  const rest = undeclared.map(({ name, text }) => `${name}=${text}`).join('&');
  return rest === '' ? address : `${address}${address.includes('?') ? '&' : '?'}${rest}`;
}
