import { EntitySchema } from 'typeorm';
import type { ApiToken } from '../api-tokens.ts';
import type { DraftChangeRow, DraftRow, EditionRow } from '../apps.ts';
import type { BuilderRow } from '../builders.ts';
import type { ConsentRow, PageVersionRow, PrintedRow } from '../links.ts';
import type { LedgerRow } from '../ledger.ts';
import type { MailRow } from '../mails.ts';
import type { Delivery, Webhook } from '../webhooks.ts';

export const Draft = new EntitySchema<DraftRow>({
  name: 'draft',
  columns: {
    app: { type: 'text', primary: true },
    source: { type: 'text' },
    revision: { type: 'integer' },
    changedAt: { type: 'text', name: 'changed_at' },
  },
});

export const Edition = new EntitySchema<EditionRow>({
  name: 'edition',
  columns: {
    app: { type: 'text', primary: true },
    number: { type: 'integer', primary: true },
    source: { type: 'text' },
    publishedAt: { type: 'text', name: 'published_at' },
    publishedBy: { type: 'text', name: 'published_by' },
    note: { type: 'text' },
  },
});

export const DraftChange = new EntitySchema<DraftChangeRow>({
  name: 'draft_change',
  columns: {
    app: { type: 'text', primary: true },
    revision: { type: 'integer', primary: true },
    changedAt: { type: 'text', name: 'changed_at' },
    changedBy: { type: 'text', name: 'changed_by' },
    what: { type: 'text' },
    patch: { type: 'text', nullable: true },
  },
});

export const BuilderEntity = new EntitySchema<BuilderRow>({
  name: 'builder',
  columns: {
    id: { type: 'text', primary: true },
    name: { type: 'text' },
    mail: { type: 'text' },
    role: { type: 'text' },
    passwordHash: { type: 'text', name: 'password_hash', nullable: true },
    invitationHash: { type: 'text', name: 'invitation_hash', nullable: true },
    invitationEndsAt: { type: 'integer', name: 'invitation_ends_at', nullable: true },
    madeAt: { type: 'text', name: 'made_at' },
  },
});

export interface PersonRow {
  app: string;
  login: string;
  /** The login name as it is compared (PRECIS, RFC 8265). */
  loginKey: string;
  name: string;
  passwordHash: string;
  /** JSON list of texts. */
  roles: string;
  /** In small letters. */
  mail: string | null;
}
export const PersonEntity = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    app: { type: 'text', primary: true },
    login: { type: 'text', primary: true },
    loginKey: { type: 'text', name: 'login_key' },
    name: { type: 'text' },
    passwordHash: { type: 'text', name: 'password_hash' },
    roles: { type: 'text' },
    mail: { type: 'text', nullable: true },
  },
});

/** A signed-in browser. The token itself is only in the browser; here is its hash. */
export interface SessionRow {
  tokenHash: string;
  /** `owner` for the console, else `live:APP` or `draft:APP`. */
  scope: string;
  login: string;
  /** When it ends unless it is used, and when it ends in any case; milliseconds since 1970. */
  endsAt: number;
  latestEnd: number;
  /** Milliseconds without use after which it ends. */
  idle: number;
}
export const Session = new EntitySchema<SessionRow>({
  name: 'session',
  columns: {
    tokenHash: { type: 'text', primary: true, name: 'token_hash' },
    scope: { type: 'text' },
    login: { type: 'text' },
    endsAt: { type: 'integer', name: 'ends_at' },
    latestEnd: { type: 'integer', name: 'latest_end' },
    idle: { type: 'integer' },
  },
});

export interface FileRow {
  app: string;
  name: string;
  bytes: Buffer;
}
export const FileEntity = new EntitySchema<FileRow>({
  name: 'file',
  columns: {
    app: { type: 'text', primary: true },
    name: { type: 'text', primary: true },
    bytes: { type: 'blob' },
  },
});

export interface SentFileRow {
  app: string;
  /** What the field of the record holds: an unguessable code, “/”, and the file's name. */
  value: string;
  bytes: Buffer;
  size: number;
  /** No record has it yet, and it is forgotten then; milliseconds since 1970. Null once a record has it. */
  looseUntil: number | null;
}
export const SentFileEntity = new EntitySchema<SentFileRow>({
  name: 'sent_file',
  columns: {
    app: { type: 'text', primary: true },
    value: { type: 'text', primary: true },
    bytes: { type: 'blob' },
    size: { type: 'integer' },
    looseUntil: { type: 'integer', name: 'loose_until', nullable: true },
  },
});

export interface HeldFormRow {
  tokenHash: string;
  scope: string;
  /** The address that the form was sent to. */
  address: string;
  form: string;
  /** JSON: texts by field. */
  texts: string;
  /** The login name of the session that had ended; null where none is known. */
  login: string | null;
  /** A mark of the network address that it came from. */
  network: string;
  /** Milliseconds since 1970. */
  endsAt: number;
}
export const HeldForm = new EntitySchema<HeldFormRow>({
  name: 'held_form',
  columns: {
    tokenHash: { type: 'text', primary: true, name: 'token_hash' },
    scope: { type: 'text' },
    address: { type: 'text' },
    form: { type: 'text' },
    texts: { type: 'text' },
    login: { type: 'text', nullable: true },
    network: { type: 'text' },
    endsAt: { type: 'integer', name: 'ends_at' },
  },
});

export const MailEntity = new EntitySchema<MailRow>({
  name: 'mail',
  columns: {
    number: { type: 'integer', primary: true, generated: 'increment' },
    app: { type: 'text' },
    writtenAt: { type: 'text', name: 'written_at' },
    recipient: { type: 'text' },
    subject: { type: 'text' },
    text: { type: 'text' },
    html: { type: 'text' },
    form: { type: 'text' },
    state: { type: 'text' },
    tries: { type: 'integer' },
    problem: { type: 'text' },
    dueAt: { type: 'integer', name: 'due_at' },
    removeAt: { type: 'integer', name: 'remove_at' },
  },
});

export interface ApiTokenRow extends Omit<ApiToken, 'scopes'> {
  tokenHash: string;
  /** JSON list of texts. */
  scopes: string;
}
export const ApiTokenEntity = new EntitySchema<ApiTokenRow>({
  name: 'api_token',
  columns: {
    id: { type: 'text', primary: true },
    name: { type: 'text' },
    tokenHash: { type: 'text', name: 'token_hash' },
    scopes: { type: 'text' },
    app: { type: 'text', nullable: true },
    madeAt: { type: 'text', name: 'made_at' },
    endsAt: { type: 'text', name: 'ends_at', nullable: true },
    usedOn: { type: 'text', name: 'used_on', nullable: true },
  },
});

export interface WebhookRow extends Omit<Webhook, 'events' | 'collections'> {
  /** JSON lists of texts. */
  events: string;
  collections: string;
}
export const WebhookEntity = new EntitySchema<WebhookRow>({
  name: 'webhook',
  columns: {
    id: { type: 'text', primary: true },
    app: { type: 'text' },
    url: { type: 'text' },
    secret: { type: 'text' },
    events: { type: 'text' },
    collections: { type: 'text' },
    madeAt: { type: 'text', name: 'made_at' },
  },
});

export const DeliveryEntity = new EntitySchema<Delivery>({
  name: 'delivery',
  columns: {
    number: { type: 'integer', primary: true, generated: 'increment' },
    webhook: { type: 'text' },
    eventId: { type: 'text', name: 'event_id' },
    type: { type: 'text' },
    body: { type: 'text' },
    writtenAt: { type: 'text', name: 'written_at' },
    state: { type: 'text' },
    tries: { type: 'integer' },
    problem: { type: 'text' },
    dueAt: { type: 'integer', name: 'due_at' },
    removeAt: { type: 'integer', name: 'remove_at' },
  },
});

export interface ShortAddressRow {
  code: string;
  app: string;
  edition: number;
  page: string;
  /** Canonical JSON: every value of the page by parameter. */
  values: string;
  fragment: string | null;
  /** RFC 3339, UTC. */
  madeAt: string;
  /** RFC 3339, UTC; null for ever. */
  endsAt: string | null;
  /** Hash of the browser’s mark that made it; null where the owner did. */
  maker: string | null;
}
export const ShortAddressEntity = new EntitySchema<ShortAddressRow>({
  name: 'short_address',
  columns: {
    code: { type: 'text', primary: true },
    app: { type: 'text' },
    edition: { type: 'integer' },
    page: { type: 'text' },
    values: { type: 'text', name: 'page_values' },
    fragment: { type: 'text', nullable: true },
    madeAt: { type: 'text', name: 'made_at' },
    endsAt: { type: 'text', name: 'ends_at', nullable: true },
    maker: { type: 'text', nullable: true },
  },
});

/** The link of a mail that lets a person in, once. The token itself is only in the mail. */
export interface EntryLinkRow {
  tokenHash: string;
  scope: string;
  login: string;
  /** Where the person meant to go. */
  wanted: string | null;
  /** Milliseconds since 1970. */
  endsAt: number;
}
export const EntryLink = new EntitySchema<EntryLinkRow>({
  name: 'entry_link',
  columns: {
    tokenHash: { type: 'text', primary: true, name: 'token_hash' },
    scope: { type: 'text' },
    login: { type: 'text' },
    wanted: { type: 'text', name: 'back', nullable: true },
    endsAt: { type: 'integer', name: 'ends_at' },
  },
});

export interface VisitRow {
  app: string;
  parameter: string;
  value: string;
  /** YYYY-MM-DD, UTC. */
  day: string;
  came: number;
  formsSent: number;
}
export const VisitEntity = new EntitySchema<VisitRow>({
  name: 'arrival',
  columns: {
    app: { type: 'text', primary: true },
    parameter: { type: 'text', primary: true },
    value: { type: 'text', primary: true },
    day: { type: 'text', primary: true },
    came: { type: 'integer', name: 'arrivals' },
    formsSent: { type: 'integer', name: 'submissions' },
  },
});

/** What has come of a form that was sent. */
export interface ReceiptRow {
  app: string;
  /** Hash of the form’s one-time mark and of all that was typed. */
  mark: string;
  /** Where it led. */
  next: string;
  /** Milliseconds since 1970. */
  endsAt: number;
}
export const Receipt = new EntitySchema<ReceiptRow>({
  name: 'receipt',
  columns: {
    app: { type: 'text', primary: true },
    mark: { type: 'text', primary: true },
    next: { type: 'text' },
    endsAt: { type: 'integer', name: 'ends_at' },
  },
});

/** Which table holds the records of a collection. Tables are numbered, so that no two names collide. */
export interface RecordTableRow {
  number: number;
  /** The app, or its draft’s copy. */
  space: string;
  collection: string;
  /** `live`, or `staged` while records are gathered; `dropped` until its rows are gone. */
  state: 'live' | 'staged' | 'dropped';
  /** The field that is the key. */
  keyField: string;
}
export const RecordTable = new EntitySchema<RecordTableRow>({
  name: 'record_table',
  columns: {
    number: { type: 'integer', primary: true, generated: 'increment' },
    space: { type: 'text' },
    collection: { type: 'text' },
    state: { type: 'text' },
    keyField: { type: 'text', name: 'key_field' },
  },
});

/** Which column of a table holds a field. */
export interface RecordColumnRow {
  table: number;
  field: string;
  number: number;
  type: string;
  unique: boolean;
  /** The last number given, where the field counts by itself. */
  lastSerial: number;
  /** The expression by which its values were computed. */
  computed: string | null;
}
export const RecordColumn = new EntitySchema<RecordColumnRow>({
  name: 'record_column',
  columns: {
    table: { type: 'integer', primary: true, name: 'table_number' },
    field: { type: 'text', primary: true },
    number: { type: 'integer' },
    type: { type: 'text' },
    unique: { type: 'boolean', name: 'is_unique' },
    lastSerial: { type: 'integer', name: 'last_serial' },
    computed: { type: 'text', nullable: true },
  },
});

export const PageVersionEntity = new EntitySchema<PageVersionRow>({
  name: 'page_version',
  columns: {
    app: { type: 'text', primary: true },
    mark: { type: 'text', primary: true },
    page: { type: 'text' },
    version: { type: 'text' },
  },
});

/** Which version of a page an edition had. */
export interface EditionPageRow {
  app: string;
  edition: number;
  mark: string;
}

export const EditionPageEntity = new EntitySchema<EditionPageRow>({
  name: 'edition_page',
  columns: {
    app: { type: 'text', primary: true },
    edition: { type: 'integer', primary: true },
    mark: { type: 'text', primary: true },
  },
});

export const LedgerEntity = new EntitySchema<LedgerRow>({
  name: 'ledger',
  columns: {
    app: { type: 'text', primary: true },
    day: { type: 'text', primary: true },
    page: { type: 'text', primary: true },
    parameter: { type: 'text', primary: true },
    state: { type: 'text', primary: true },
    bucket: { type: 'text', primary: true },
    referrer: { type: 'text', primary: true },
    count: { type: 'integer' },
  },
});

export interface TriedAddressRow {
  app: string;
  mark: string;
  /** Null until it has been tried often enough. */
  path: string | null;
  day: string;
  days: number;
  tries: number;
}
export const TriedAddressEntity = new EntitySchema<TriedAddressRow>({
  name: 'tried_address',
  columns: {
    app: { type: 'text', primary: true },
    mark: { type: 'text', primary: true },
    path: { type: 'text', nullable: true },
    day: { type: 'text' },
    days: { type: 'integer' },
    tries: { type: 'integer' },
  },
});

export const PrintedEntity = new EntitySchema<PrintedRow>({
  name: 'printed_address',
  columns: {
    id: { type: 'text', primary: true },
    app: { type: 'text' },
    address: { type: 'text' },
    note: { type: 'text' },
    by: { type: 'text' },
    at: { type: 'text' },
  },
});

export const ConsentEntity = new EntitySchema<ConsentRow>({
  name: 'consent',
  columns: {
    app: { type: 'text', primary: true },
    promise: { type: 'text', primary: true },
    edition: { type: 'integer' },
    words: { type: 'text' },
    by: { type: 'text' },
    at: { type: 'text' },
    why: { type: 'text' },
  },
});

export const entities = [
  Draft,
  DraftChange,
  Edition,
  BuilderEntity,
  PersonEntity,
  Session,
  FileEntity,
  HeldForm,
  MailEntity,
  ShortAddressEntity,
  ApiTokenEntity,
  WebhookEntity,
  DeliveryEntity,
  EntryLink,
  SentFileEntity,
  VisitEntity,
  Receipt,
  RecordTable,
  RecordColumn,
  PageVersionEntity,
  EditionPageEntity,
  ConsentEntity,
  PrintedEntity,
  LedgerEntity,
  TriedAddressEntity,
];
