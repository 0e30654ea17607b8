import type { z } from 'zod';
import * as schemas from './schemas.ts';

/** One operation of the HTTP interface. The service, the client and the OpenAPI description are all made from these. */
export interface Operation<Body extends z.ZodType | undefined = z.ZodType | undefined, Answer extends z.ZodType = z.ZodType> {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Path below the base, with parameters in braces as OpenAPI has them. */
  path: string;
  summary: string;
  /** Who may call it: anybody; or a builder with this role, or one that may do more. */
  access: 'open' | 'viewer' | 'builder' | 'owner';
  body: Body;
  answer: Answer;
  /** Most bytes of the body, counted unpacked; 64 KB when left out. */
  mostBytes?: number;
}

const operation = <Body extends z.ZodType | undefined, Answer extends z.ZodType>(given: Operation<Body, Answer>) => given;

/** Where the interface begins. */
export const apiBase = '/~/api/v1';

/** Most bytes of a body where an operation says nothing. */
export const defaultBodyBytes = 64_000;
const ofDraft = 20_000_000;
const withRecords = 100_000_000;

/** All operations, by the name that the client has for them. */
export const operations = {
  listApps: operation({
    method: 'get',
    path: '/apps',
    summary: 'Lists the apps.',
    access: 'viewer',
    body: undefined,
    answer: schemas.appList,
  }),
  readAddress: operation({
    method: 'post',
    path: '/apps/{app}/read',
    summary: 'Reads an address of the published app.',
    access: 'open',
    body: schemas.readBody,
    answer: schemas.reading,
  }),
  writeAddress: operation({
    method: 'post',
    path: '/apps/{app}/write',
    summary: 'Writes the address of a page of the published app with these values.',
    access: 'open',
    body: schemas.writeBody,
    answer: schemas.written,
  }),
  getDraft: operation({
    method: 'get',
    path: '/apps/{app}/draft',
    summary: 'The draft: the app file’s text, and its problems.',
    access: 'viewer',
    body: undefined,
    answer: schemas.draft,
  }),
  pushDraft: operation({
    method: 'put',
    path: '/apps/{app}/draft',
    summary:
      'Puts an app file, and records and pictures if given, in the place of the draft, all of it or nothing; makes the app if it is new. Refused where records would be lost, unless it says “replace”. Large records are sent as multipart/form-data.',
    mostBytes: withRecords,
    access: 'builder',
    body: schemas.pushBody,
    answer: schemas.draft,
  }),
  patchDraft: operation({
    method: 'patch',
    path: '/apps/{app}/draft',
    summary: 'Changes the draft by a JSON Patch and keeps its comments.',
    mostBytes: ofDraft,
    access: 'builder',
    body: schemas.patchBody,
    answer: schemas.draft,
  }),
  publish: operation({
    method: 'post',
    path: '/apps/{app}/publish',
    summary: 'Publishes the draft as a new edition; refused with the problems if it has errors.',
    access: 'builder',
    body: schemas.publishBody,
    answer: schemas.published,
  }),
  changeDraft: operation({
    method: 'post',
    path: '/apps/{app}/draft/changes',
    summary:
      'Changes the draft by a JSON Patch, on top of what others have changed elsewhere; asks where they have changed the same places.',
    mostBytes: ofDraft,
    access: 'builder',
    body: schemas.changeBody,
    answer: schemas.draftChanged,
  }),
  listChanges: operation({
    method: 'get',
    path: '/apps/{app}/draft/changes',
    summary: 'The log: the newest changes of the draft, each with who made it.',
    access: 'viewer',
    body: undefined,
    answer: schemas.draftChanges,
  }),
  listEditions: operation({
    method: 'get',
    path: '/apps/{app}/editions',
    summary: 'The editions of the app, each with when it was published and by whom.',
    access: 'viewer',
    body: undefined,
    answer: schemas.editions,
  }),
  getEdition: operation({
    method: 'get',
    path: '/apps/{app}/editions/{number}',
    summary: 'An edition with the text of its app file.',
    access: 'viewer',
    body: undefined,
    answer: schemas.wholeEdition,
  }),
  tryAs: operation({
    method: 'post',
    path: '/apps/{app}/try-as',
    summary: 'Shows the draft, in this browser, as a person of the app sees it, or as a visitor who is not signed in.',
    access: 'viewer',
    body: schemas.tryAsBody,
    answer: schemas.done,
  }),
  findRecords: operation({
    method: 'post',
    path: '/apps/{app}/records/{collection}/find',
    summary: 'Finds records of a collection, as texts.',
    access: 'viewer',
    body: schemas.findBody,
    answer: schemas.foundRecords,
  }),
  changeRecords: operation({
    method: 'post',
    path: '/apps/{app}/records/{collection}/changes',
    summary: 'Creates, changes and removes records, one after the other; each has a result of its own.',
    mostBytes: ofDraft,
    access: 'builder',
    body: schemas.recordChangesBody,
    answer: schemas.recordChanges,
  }),
  previewMail: operation({
    method: 'post',
    path: '/apps/{app}/mails/{mail}/preview',
    summary: 'Writes a mail of the draft as a form would send it, and puts it into the outbox if asked to.',
    access: 'builder',
    body: schemas.mailPreviewBody,
    answer: schemas.mailPreview,
  }),
  putPerson: operation({
    method: 'put',
    path: '/apps/{app}/people/{login}',
    summary: 'Lets a person sign in to the app, or gives them a new password, which ends their sessions.',
    access: 'builder',
    body: schemas.personBody,
    answer: schemas.done,
  }),
  listPeople: operation({
    method: 'get',
    path: '/apps/{app}/people',
    summary: 'The people who may sign in to the app, by login name.',
    access: 'viewer',
    body: undefined,
    answer: schemas.people,
  }),
  removePerson: operation({
    method: 'delete',
    path: '/apps/{app}/people/{login}',
    summary: 'Lets a person sign in no more, and ends their sessions.',
    access: 'builder',
    body: undefined,
    answer: schemas.done,
  }),
  listVisits: operation({
    method: 'get',
    path: '/apps/{app}/visits',
    summary: 'How many came, and how many sent a form, by the values that are remembered for a visit.',
    access: 'viewer',
    body: undefined,
    answer: schemas.visits,
  }),
  listShort: operation({
    method: 'get',
    path: '/apps/{app}/short',
    summary: 'The short addresses of the app, the newest first.',
    access: 'viewer',
    body: undefined,
    answer: schemas.shortAddresses,
  }),
  makeShort: operation({
    method: 'post',
    path: '/apps/{app}/short',
    summary: 'Makes a short address for an address of the published app.',
    access: 'builder',
    body: schemas.shortBody,
    answer: schemas.shortAddresses,
  }),
  withdrawShort: operation({
    method: 'delete',
    path: '/apps/{app}/short/{code}',
    summary: 'Withdraws a short address: it leads nowhere from now on.',
    access: 'builder',
    body: undefined,
    answer: schemas.done,
  }),
  listMails: operation({
    method: 'get',
    path: '/mails',
    summary: 'The newest mails of all apps: those in the outbox, and those that are or were on their way.',
    access: 'viewer',
    body: undefined,
    answer: schemas.mails,
  }),
  resendMails: operation({
    method: 'post',
    path: '/mails/resend',
    summary: 'Sends mails again: those with these numbers that failed or were kept, or all that failed.',
    access: 'builder',
    body: schemas.resendBody,
    answer: schemas.resent,
  }),
  listKeys: operation({
    method: 'get',
    path: '/keys',
    summary: 'The keys that seal values in addresses, without the keys themselves; the last one is current.',
    access: 'owner',
    body: undefined,
    answer: schemas.keys,
  }),
  rotateKeys: operation({
    method: 'post',
    path: '/keys',
    summary: 'Makes a new key, which seals from now on; the older ones still open.',
    access: 'owner',
    body: undefined,
    answer: schemas.keys,
  }),
  forgetKey: operation({
    method: 'delete',
    path: '/keys/{id}',
    summary: 'Forgets a key: what it has sealed opens no more.',
    access: 'owner',
    body: undefined,
    answer: schemas.done,
  }),
  enterConsole: operation({
    method: 'post',
    path: '/console/enter',
    summary: 'Opens the console with the key of a one-time link.',
    access: 'open',
    body: schemas.enterBody,
    answer: schemas.done,
  }),
  whoAmI: operation({
    method: 'get',
    path: '/console/me',
    summary: 'Who works in this console.',
    access: 'viewer',
    body: undefined,
    answer: schemas.whoAmI,
  }),
  signInBuilder: operation({
    method: 'post',
    path: '/console/sign-in',
    summary: 'Opens the console for a builder with an account.',
    access: 'open',
    body: schemas.signInBody,
    answer: schemas.whoAmI,
  }),
  acceptInvitation: operation({
    method: 'post',
    path: '/console/accept',
    summary: 'Accepts an invitation: gives the account a name and a password, and opens the console.',
    access: 'open',
    body: schemas.acceptBody,
    answer: schemas.whoAmI,
  }),
  listBuilders: operation({
    method: 'get',
    path: '/builders',
    summary: 'The builders with accounts, and those who are invited.',
    access: 'viewer',
    body: undefined,
    answer: schemas.builders,
  }),
  inviteBuilder: operation({
    method: 'post',
    path: '/builders',
    summary: 'Invites a builder by a link, and by mail if asked to.',
    access: 'owner',
    body: schemas.inviteBody,
    answer: schemas.invitation,
  }),
  setBuilderRole: operation({
    method: 'put',
    path: '/builders/{id}',
    summary: 'Gives a builder another role.',
    access: 'owner',
    body: schemas.roleBody,
    answer: schemas.done,
  }),
  removeBuilder: operation({
    method: 'delete',
    path: '/builders/{id}',
    summary: 'Removes a builder, whose console closes everywhere.',
    access: 'owner',
    body: undefined,
    answer: schemas.done,
  }),
  leaveConsole: operation({
    method: 'post',
    path: '/console/leave',
    summary: 'Closes the console’s session.',
    access: 'viewer',
    body: undefined,
    answer: schemas.done,
  }),
  endConsoleSessions: operation({
    method: 'post',
    path: '/console/end-sessions',
    summary: 'Closes the console in every browser.',
    access: 'owner',
    body: undefined,
    answer: schemas.ended,
  }),
  renewToken: operation({
    method: 'post',
    path: '/token',
    summary: 'Makes a new owner’s token; the one before is void at once. Also written to the file api-token.',
    access: 'owner',
    body: undefined,
    answer: schemas.token,
  }),
} as const;

export type OperationName = keyof typeof operations;
export type BodyOf<Name extends OperationName> = (typeof operations)[Name]['body'] extends z.ZodType
  ? z.input<(typeof operations)[Name]['body']>
  : undefined;
export type AnswerOf<Name extends OperationName> = z.output<(typeof operations)[Name]['answer']>;
