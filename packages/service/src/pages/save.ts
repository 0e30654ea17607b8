import { createHash } from 'node:crypto';
import {
  own,
  fieldName,
  fileFieldsOf,
  formNamesOf,
  PallmistError,
  planSave,
  savedFields,
  sentForm,
  type FieldTree,
  type FormState,
  type RecordData,
  type SentForm,
  languageOf,
  rootsOf,
  sentencesIn,
  walkContent,
  type PageDefinition,
} from '@pallmist/app';
import type { Request } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';
import { networkMark } from '../http/network.ts';
import type { MailLimits } from '../mail/mail-limits.ts';
import type { PostOffice } from '../mail/post-office.ts';
import type { Sealer } from '../seals/sealer.ts';
import type { Store, Stores } from '../store/store.ts';
import type { WebhookSender } from '../webhooks/webhook-sender.ts';
import { pageAt } from './admit.ts';
import type { FormBody } from './form-body.ts';
import { FormFiles } from './form-files.ts';
import { ownFields } from './form-kind.ts';
import { fillBook, load } from './load.ts';
import { recordSpace } from './load-data.ts';
import { message, ownTextsIn, sayFor } from './messages.ts';
import { keepSaid } from './said.ts';
import { pageDataType, says, tools, type Loaded, type PageOutcome, type Received, type Step } from './steps.ts';
import { visitTexts } from './visit.ts';

const day = 24 * 60 * 60 * 1000;

/** What came of a form: where it leads now that it is saved, or what is wrong with it. */
export type SaveOutcome = { saved: string; said?: string } | { again: Record<string, FormState> };

export interface SaveParts {
  store: Store;
  cookies: AppCookies;
  sealer: Sealer;
  post: PostOffice;
  mailLimits: MailLimits;
  webhooks: WebhookSender;
  /** Where the public reaches the service. */
  base: () => string;
}

const typedTexts = ({ texts }: FormBody) => Object.fromEntries(Object.entries(texts).filter(([field]) => !field.startsWith('~')));

/** Why a form cannot be saved; thrown inside of its transaction, so that nothing of it is kept. */
class NotSaved extends PallmistError {
  readonly code = 'not-saved';
  readonly problems: Record<string, string>;
  readonly sentences: readonly string[];

  constructor(problems: Record<string, string>, sentences: readonly string[]) {
    super(sentences.join(' '));
    this.problems = problems;
    this.sentences = sentences;
  }
}

/** Saves what a form of a page has sent: record, files and mail in one transaction, once, however often it is sent. */
export async function save(loaded: Loaded, name: string, form: FormBody, parts: SaveParts): Promise<Step<SaveOutcome>> {
  const { hosted, request, response, service, book } = loaded;
  const { definition } = hosted;
  const { store } = parts;
  const shown = sentForm(definition, service.page, service.payload, { ...tools, seals: book }, name);
  const texts = typedTexts(form);
  if (shown === undefined) return closed(loaded, texts);
  const inWords = ownTextsIn(hosted, loaded.reading.values);
  const again = (problems: Record<string, string>, sentences: readonly string[]): SaveOutcome => {
    const said = Object.fromEntries(Object.entries(problems).map(([field, sentence]) => [field, inWords(sentence)]));
    return { again: { [name]: { values: texts, problems: said, problem: sentences.map(inWords).join(' ') } } };
  };
  const mark = receiptMark(name, request, form, texts);
  const before = mark === undefined ? undefined : await store.receipts.find(hosted.scope, mark);
  if (before !== undefined) return { saved: before };
  const limited = shown.sendsMail ? await parts.mailLimits.reached(hosted, loaded.name, name, request, response) : undefined;
  if (limited !== undefined) return again({}, [limited]);

  const { collections = {} } = definition;
  const files = new FormFiles(store);
  const fileFields = fileFieldsOf(definition, service.page, name);
  const present = await recordOf(store, hosted, shown);
  const fileProblems = await files.take(hosted, fileFields, form, texts, present, sayFor(hosted, loaded.reading.values));
  if (hosted.draft) await store.records.beginTrial(definition.app, collections);
  const space = recordSpace(store, hosted);
  const fields = { ...savedFields(definition, service.page, shown.request.collection), ...fileTree(hosted, shown) };
  let said = 'Saved.';
  try {
    const next = await store.transaction(async (stores) => {
      // Of two that are sent at the same time, the second one finds here what the first has kept.
      const twin = mark === undefined ? undefined : await stores.receipts.find(hosted.scope, mark);
      if (twin !== undefined) return twin;
      const found = decidesByRecords(loaded.page) ? await foundAgain(loaded, name, stores, parts) : shown;
      const record = await recordOf(stores, hosted, found);
      mustBeUnchanged(found, record, form.texts[ownFields.seen]);
      const { plan, problems } = planSave(definition, found.request, texts, sentencesIn(languageOf(definition, loaded.reading.values)));
      mustBeRight({ ...problems, ...fileProblems }, found);
      const result = await stores.records.save(space, collections, plan);
      if ('problems' in result) mustBeRight(result.problems, found, result.problem);
      const key = 'key' in result ? result.key : '';
      const after = (await stores.records.byKey(space, collections, found.request.collection, key, { fields })) ?? record;
      await settleFiles(stores, hosted, found, record, found.request.action === 'remove' ? {} : after);
      said = found.said(after);
      const to = await writeOut(loaded, found, after, stores, parts, name);
      // Drafts are for trying out, so they send no messages.
      if (!hosted.draft) {
        const { action, collection } = found.request;
        const told = await allOf(stores, hosted, found, key, after);
        await parts.webhooks.tell(
          stores,
          definition,
          { page: loaded.name, form: name, action, collection, key, record: told },
          parts.base(),
        );
      }
      if (mark !== undefined) await stores.receipts.keep(hosted.scope, mark, to);
      const held = parts.cookies.read(hosted, request, 'held');
      if (held !== undefined) await stores.heldForms.forget(held);
      if (!hosted.draft) await stores.visits.formSent(definition.app, visitTexts(hosted, loaded.requestContext.visit));
      return to;
    });
    if (parts.cookies.read(hosted, request, 'held') !== undefined) parts.cookies.clear(hosted, response, 'held');
    parts.post.wake();
    parts.webhooks.wake();
    // A browser that draws the page itself says it; any other is told on the page that it is led to.
    if (said !== '' && request.headers.accept !== pageDataType) keepSaid(parts.cookies, hosted, response, said);
    return { saved: next, said };
  } catch (error) {
    if (error instanceof Closed) return closed(loaded, texts);
    if (error instanceof NotSaved) return again(error.problems, error.sentences);
    throw error;
  }
}

/** The page does not show the form any more; thrown inside of its transaction. */
class Closed extends PallmistError {
  readonly code = 'form-closed';
}

/** Says that a form is not on its page, with all that was typed: the page that it was typed into may be gone from the screen. */
function closed({ hosted, reading, request }: Loaded, texts: Record<string, string>): { elsewhere: PageOutcome } {
  const say = sayFor(hosted, reading.values);
  const typed = Object.values(texts).filter((text) => text !== '');
  const said = message(
    hosted,
    409,
    'That form is not here',
    [
      'The page does not show this form any more: what it depends on has changed meanwhile.',
      ...(typed.length === 0 ? [] : (['Nothing is saved. This is what you typed:'] as const)),
    ],
    reading.values,
  );
  if (typed.length > 0) said.message.typed = typed;
  said.message.ways.unshift({ text: say('Back to the page'), href: request.originalUrl });
  return says(said);
}

/** Whether a condition of a page names what another form could have changed since the page was loaded. */
function decidesByRecords({ content }: PageDefinition): boolean {
  const roots = ['record', 'rows', 'total', 'figures', 'label'];
  return [...walkContent(content)].some(({ component: { when } }) => when !== undefined && roots.some((root) => rootsOf(when).has(root)));
}

/**
 * The form as the page shows it now, inside of the transaction that saves it: of two people who take the last room, the second
 * one finds it taken.
 * @throws Closed where the page does not show it any more
 */
async function foundAgain(loaded: Loaded, name: string, stores: Stores, { cookies, sealer }: SaveParts): Promise<SentForm> {
  const now = await load(loaded, { store: stores, cookies, sealer });
  const found =
    'elsewhere' in now
      ? undefined
      : sentForm(loaded.hosted.definition, now.service.page, now.service.payload, { ...tools, seals: loaded.book }, name);
  if (found === undefined) throw new Closed('The form is not on its page any more.');
  return found;
}

/** Where the form leads, and its mail in the outbox. A link that cannot be written leaves the mail there as failed. */
async function writeOut(
  { hosted, book, request, name: page }: Loaded,
  found: SentForm,
  record: RecordData,
  stores: Stores,
  { sealer, post, base, mailLimits }: SaveParts,
  form: string,
): Promise<string> {
  let next = found.next(record);
  let mail = found.mail(record, base());
  // What the links want sealed is known now.
  if (await fillBook(hosted, book, sealer)) {
    next = found.next(record);
    mail = found.mail(record, base());
  }
  if (mail !== undefined) {
    const { app } = hosted.definition;
    const tooMany = mail.problem === undefined ? await mailLimits.recipientReached(stores.mails, app, mail.recipient) : undefined;
    const { problem = tooMany, ...written } = mail;
    if (tooMany !== undefined) throw new NotSaved({}, [tooMany]);
    await stores.mails.add({ app, form: `${page}/${form}`, ...written }, problem === undefined ? post.stateOfNew : 'failed', problem);
  }
  return next ?? request.originalUrl;
}

/** A mark of a form and of all that was typed into it; undefined where the form carries no one-time mark. */
function receiptMark(name: string, request: Request, { texts: sent, files }: FormBody, texts: Record<string, string>): string | undefined {
  const once = sent[ownFields.once];
  if (once === undefined || once.length < 16 || once.length > 100) return undefined;
  const hash = createHash('sha256').update(JSON.stringify([once, name, request.originalUrl, Object.entries(texts).sort()]));
  for (const [field, { name: file, bytes }] of Object.entries(files)) hash.update(JSON.stringify([field, file])).update(bytes);
  return hash.digest('base64url');
}

/** @throws NotSaved where another person has changed the record, or it is gone, or the form does not say what it has seen */
function mustBeUnchanged(found: SentForm, record: RecordData, seen: string | undefined): void {
  const { request } = found;
  if (request.action === 'create') return;
  if (request.key === undefined || Object.keys(record).length === 0) throw new NotSaved({}, ['The record is not there any more.']);
  if (request.action === 'change' && seen !== found.seenOf(record))
    throw new NotSaved({}, [
      'This was changed by another person meanwhile. Your text stands below and is not saved; send it again to put it in the place of theirs.',
    ]);
}

/** @throws NotSaved where there is any problem; those of fields that the form does not show are told for the form as a whole */
function mustBeRight(problems: Record<string, string>, { request: { fields } }: SentForm, problem?: string): void {
  if (Object.keys(problems).length === 0 && problem === undefined) return;
  const shown = new Set(fields.map(fieldName));
  const hidden = Object.entries(problems).filter(([field]) => !shown.has(field));
  const sentences = [problem ?? 'It is not saved yet.', ...hidden.map(([field, sentence]) => `${field}: ${sentence}`)];
  if (hidden.length < Object.keys(problems).length) sentences.push('Please look at what is marked.');
  throw new NotSaved(problems, sentences);
}

/** The record as it is now, with the fields that the form shows; empty where there is none yet. */
async function recordOf({ records }: Stores, hosted: HostedApp, found: SentForm): Promise<RecordData> {
  const { key, collection } = found.request;
  const { collections = {} } = hosted.definition;
  return key === undefined ? {} : ((await records.byKey(recordSpace({ records }, hosted), collections, collection, key)) ?? {});
}

/** The whole record for webhooks; if it was removed, as it was before. */
async function allOf({ records }: Stores, hosted: HostedApp, found: SentForm, key: string, known: RecordData): Promise<RecordData> {
  const { app, collections = {} } = hosted.definition;
  return (await records.byKey(app, collections, found.request.collection, key)) ?? known;
}

const fileFields = ({ definition }: HostedApp, { request: { collection } }: SentForm): string[] =>
  Object.entries(own(definition.collections, collection)?.fields ?? {}).flatMap(([name, { type }]) => (type === 'file' ? [name] : []));

const fileTree = (hosted: HostedApp, found: SentForm): FieldTree => Object.fromEntries(fileFields(hosted, found).map((name) => [name, {}]));

/** The record is saved: its files are its own, and those that it had before are gone. */
async function settleFiles(
  { sentFiles }: Stores,
  hosted: HostedApp,
  found: SentForm,
  before: RecordData,
  after: RecordData,
): Promise<void> {
  // What a draft's forms save is a copy: the files of the records themselves stay.
  if (hosted.draft) return;
  const { app } = hosted.definition;
  for (const name of fileFields(hosted, found)) {
    const [old, now] = [own(before, name), own(after, name)];
    if (old === now) continue;
    if (typeof now === 'string') await sentFiles.settle(app, now);
    if (typeof old === 'string') await sentFiles.drop(app, old);
  }
}

/** Keeps what was typed until the person has signed in again, where the form is one of the page that it was sent to. */
export async function holdForm({ hosted, request, response, form }: Received, { store, cookies }: SaveParts): Promise<void> {
  const name = form?.texts[ownFields.form];
  const page = own(hosted.definition.pages, pageAt(hosted, request.originalUrl) ?? '');
  if (form === undefined || name === undefined || page === undefined || !formNamesOf(page).has(name)) return;
  const texts = typedTexts(form);
  await new FormFiles(store).take(hosted, fileFieldsOf(hosted.definition, page, name), form, texts, undefined);
  const from = {
    login: await store.sessions.formerLogin(hosted.scope, cookies.read(hosted, request, 'person')),
    network: networkMark(request),
  };
  const token = await store.heldForms.hold(hosted.scope, { address: request.originalUrl, form: name, texts }, from);
  if (token !== undefined) cookies.set(hosted, response, 'held', token, day);
}
