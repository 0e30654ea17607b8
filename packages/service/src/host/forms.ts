import {
  fieldName,
  fileFieldsOf,
  planSave,
  readAddress,
  sentForm,
  type FormState,
  type PageMaterial,
  type RecordData,
  type SentForm,
} from '@pallmist/core';
import { renderPage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { PostOffice } from '../mail/post-office.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/open-store.ts';
import { appCookiePlace, clearCookie, cookieNames, readCookie, setCookie } from './cookies.ts';
import type { FormBody } from './form-body.ts';
import { FormFiles } from './form-files.ts';
import { recordsOf } from './load.ts';
import { materialType, type PageHost } from './host.ts';
import type { HostedApp } from './hosted-app.ts';
import { message } from './messages.ts';
import { tools } from './prepare.ts';
import { visitTexts } from './visit.ts';

/** Names in the body of a sent form that are no fields. */
const ownFields = { form: '~form', seen: '~seen' } as const;
const day = 24 * 60 * 60 * 1000;

/** What came of a form, told to the browser that has taken the page over. */
export type Outcome = { saved: string } | { document: string } | { material: PageMaterial };

/** Saves what the forms of pages send. */
export class Forms {
  readonly #store: Store;
  readonly #host: PageHost;
  readonly #settings: Settings;
  readonly #assets: Assets;
  readonly #post: PostOffice;
  readonly #base: () => string;
  readonly #files: FormFiles;

  /** @param base where the public reaches the service */
  constructor(store: Store, host: PageHost, settings: Settings, assets: Assets, post: PostOffice, base: () => string) {
    this.#files = new FormFiles(store.sentFiles);
    this.#post = post;
    this.#base = base;
    this.#store = store;
    this.#host = host;
    this.#settings = settings;
    this.#assets = assets;
  }

  /** The form that a body names; undefined where it is none of a page's. */
  static nameIn({ texts }: FormBody): string | undefined {
    return texts[ownFields.form] === '' ? undefined : texts[ownFields.form];
  }

  async save(hosted: HostedApp, name: string, request: Request, response: Response): Promise<void> {
    const sent = request.form;
    const texts = Object.fromEntries(Object.entries(sent.texts).filter(([field]) => !field.startsWith('~')));
    response.setHeader('cache-control', 'no-store');
    const prepared = await this.#host.preparer.prepare(hosted, request, response, 'form');
    if ('redirect' in prepared) {
      if (prepared.signIn) {
        const page = hosted.definition.pages[readAddress(hosted.compiled, request.originalUrl).page ?? ''];
        if (page) await this.#files.take(hosted, fileFieldsOf(hosted.definition, page, name), sent, texts, undefined);
        await this.#hold(hosted, name, texts, request, response);
      }
      this.#lead(request, response, { document: prepared.redirect.to });
      return;
    }
    if ('say' in prepared) {
      this.#host.say(response, prepared.say);
      return;
    }
    const { material, page, book } = prepared;
    const form = sentForm(hosted.definition, page, material, { ...tools, seals: book }, name);
    if (form === undefined) {
      const sentences = ['The page does not show the form it came from, or not any more. What was typed has not been saved.'];
      this.#host.say(response, message(hosted, 409, 'That form is not here', sentences));
      return;
    }
    const fileFields = fileFieldsOf(hosted.definition, page, name);
    const before = this.#recordOf(hosted, form.request);
    const fileProblems = await this.#files.take(hosted, fileFields, sent, texts, before);
    const outcome = this.#carryOut(hosted, form, texts, sent.texts[ownFields.seen], fileProblems, before);
    if ('problems' in outcome) {
      const state: FormState = { values: texts, ...outcome };
      this.#showAgain(request, response, { ...material, forms: { ...material.forms, [name]: state } });
      return;
    }
    const after = form.request.action === 'remove' ? {} : outcome.record;
    await this.#files.settle(hosted, form.request.collection, before, after);
    await this.#forgetHeld(hosted, request, response);
    const base = this.#base();
    let next = form.next(outcome.record);
    let mail = form.mail(outcome.record, base);
    // What the links want sealed is known now.
    if (await this.#host.preparer.fill(hosted, book)) [next, mail] = [form.next(outcome.record), form.mail(outcome.record, base)];
    if (!hosted.draft) await this.#store.arrivals.submitted(hosted.definition.app, visitTexts(hosted, material.visit));
    if (mail) await this.#post.take({ app: hosted.definition.app, ...mail });
    this.#lead(request, response, { saved: next ?? request.originalUrl });
  }

  #carryOut(
    hosted: HostedApp,
    { request, seen }: SentForm,
    texts: Record<string, string>,
    seenBefore: string | undefined,
    fileProblems: Record<string, string>,
    before: RecordData,
  ): { record: RecordData } | Omit<FormState, 'values'> {
    const { collections = {} } = hosted.definition;
    if (request.action !== 'create' && request.key === undefined) return { problems: {}, problem: 'The record is not there any more.' };
    if (seen !== undefined && seenBefore !== undefined && seenBefore !== seen)
      return {
        problems: {},
        problem:
          'Somebody has changed this meanwhile. Your text stands below and is not saved; send it again to put it in the place of theirs.',
      };
    const { plan, problems: textProblems } = planSave(hosted.definition, request, texts);
    const problems = { ...textProblems, ...fileProblems };
    if (Object.keys(problems).length > 0) return describeProblems(problems, request);
    const app = hosted.draft ? this.#store.trials.begin(hosted.definition.app, collections) : hosted.definition.app;
    const saved = this.#store.writer.save(app, collections, plan);
    if ('problems' in saved)
      return { ...describeProblems(saved.problems, request), ...(saved.problem === undefined ? {} : { problem: saved.problem }) };
    return { record: this.#store.records.byKey(app, collections, request.collection, saved.key) ?? before };
  }

  /** The record as it is now; empty where there is none yet. */
  #recordOf(hosted: HostedApp, { collection, key }: SentForm['request']): RecordData {
    const { collections = {} } = hosted.definition;
    return key === undefined ? {} : (this.#store.records.byKey(recordsOf(this.#store, hosted), collections, collection, key) ?? {});
  }

  /** Keeps what was typed until the person has signed in again. */
  async #hold(hosted: HostedApp, form: string, texts: Record<string, string>, request: Request, response: Response): Promise<void> {
    const token = await this.#store.heldForms.hold(hosted.scope, { address: request.originalUrl, form, texts });
    setCookie(response, cookieNames.heldForm, token, day, appCookiePlace(hosted, this.#settings));
  }

  async #forgetHeld(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const token = readCookie(request, cookieNames.heldForm);
    if (token === undefined) return;
    await this.#store.heldForms.forget(token);
    clearCookie(response, cookieNames.heldForm, appCookiePlace(hosted, this.#settings));
  }

  /** The page again, with what was typed and what is wrong with it. */
  #showAgain(request: Request, response: Response, material: PageMaterial): void {
    if (request.headers.accept === materialType) this.#tell(response, { material });
    else
      response
        .status(422)
        .type('html')
        .send(renderPage(material, tools, this.#assets));
  }

  #lead(request: Request, response: Response, outcome: { saved: string } | { document: string }): void {
    if (request.headers.accept === materialType) this.#tell(response, outcome);
    else response.redirect(303, 'saved' in outcome ? outcome.saved : outcome.document);
  }

  #tell(response: Response, outcome: Outcome): void {
    response.type(materialType).send(JSON.stringify(outcome));
  }
}

/** Problems of fields that the form does not show are said for the form as a whole. */
function describeProblems(problems: Record<string, string>, { fields }: SentForm['request']): Omit<FormState, 'values'> {
  const shown = new Set(fields.map(fieldName));
  const hidden = Object.entries(problems).filter(([field]) => !shown.has(field));
  const sentences = ['It is not saved yet.', ...hidden.map(([field, problem]) => `${field}: ${problem}`)];
  if (hidden.length < Object.keys(problems).length) sentences.push('Please look at what is marked.');
  return { problems, problem: sentences.join(' ') };
}
