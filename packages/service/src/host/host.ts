import { evaluateCel, passGate, planLoad, readAddress, signInAddress, type PageMaterial, type Person } from '@pallmist/core';
import { renderMessage, renderPage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { Store } from '../store/open-store.ts';
import { cookieNames, readCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';
import { loadData } from './load.ts';
import { missingMessage, readingMessage, type StatusMessage } from './messages.ts';

/** The media type by which the browser asks for a page’s material instead of its document. */
const materialType = 'application/vnd.pallmist.material+json';

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
      if (signInPage !== undefined) response.redirect(303, signInAddress(hosted.compiled, signInPage, request.originalUrl, gate.why));
      return;
    }
    if (reading.status !== 'page') {
      this.say(response, readingMessage(hosted, reading));
      return;
    }
    const plan = planLoad(hosted.definition, page, reading.values, person, evaluateCel);
    const { data, missing } = loadData(this.#store.records, hosted.definition, plan);
    if (missing[0]) {
      this.say(response, missingMessage(hosted, reading.page, missing[0]));
      return;
    }
    const material: PageMaterial = {
      ...hosted.part(reading.page),
      name: reading.page,
      page,
      reading,
      data,
      draft: hosted.draft,
      ...(person ? { person } : {}),
    };
    if (request.headers.accept === materialType) response.type(materialType).send(JSON.stringify(material));
    else response.type('html').send(renderPage(material, evaluateCel, this.#assets));
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
