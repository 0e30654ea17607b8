import { EntitySchema } from 'typeorm';

/** An app as it is being changed: the text of its app file. */
export interface DraftRow {
  app: string;
  source: string;
  /** Rises by one with each change. */
  revision: number;
  /** RFC 3339, UTC. */
  changedAt: string;
}
export const Draft = new EntitySchema<DraftRow>({
  name: 'draft',
  columns: {
    app: { type: 'text', primary: true },
    source: { type: 'text' },
    revision: { type: 'integer' },
    changedAt: { type: 'text', name: 'changed_at' },
  },
});

/** A published version of an app; never changed. */
export interface EditionRow {
  app: string;
  number: number;
  source: string;
  publishedAt: string;
}
export const Edition = new EntitySchema<EditionRow>({
  name: 'edition',
  columns: {
    app: { type: 'text', primary: true },
    number: { type: 'integer', primary: true },
    source: { type: 'text' },
    publishedAt: { type: 'text', name: 'published_at' },
  },
});

/** Somebody who may sign in to an app. */
export interface PersonRow {
  app: string;
  login: string;
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

/** A picture that an app's pages show. */
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

/** A file that somebody has sent with a form. */
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

/** What somebody had typed into a form when their session had ended. */
export interface HeldFormRow {
  tokenHash: string;
  scope: string;
  /** The address that the form was sent to. */
  address: string;
  form: string;
  /** JSON: texts by field. */
  texts: string;
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
    endsAt: { type: 'integer', name: 'ends_at' },
  },
});

/** A mail: waiting to be sent, sent, or kept in the outbox where no mail server is configured. */
export interface MailRow {
  number: number;
  app: string;
  /** RFC 3339, UTC. */
  writtenAt: string;
  recipient: string;
  subject: string;
  text: string;
  html: string;
  state: 'kept' | 'waiting' | 'sent' | 'failed';
  /** How often it was tried, and what went wrong last. */
  tries: number;
  problem: string;
}
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
    state: { type: 'text' },
    tries: { type: 'integer' },
    problem: { type: 'text' },
  },
});

/** A short address, and the address that it stands for. */
export interface ShortAddressRow {
  code: string;
  app: string;
  address: string;
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
    address: { type: 'text' },
    madeAt: { type: 'text', name: 'made_at' },
    endsAt: { type: 'text', name: 'ends_at', nullable: true },
    maker: { type: 'text', nullable: true },
  },
});

/** The link of a mail that lets somebody in, once. The token itself is only in the mail. */
export interface EntryLinkRow {
  tokenHash: string;
  scope: string;
  login: string;
  /** Where the person wanted to go. */
  back: string | null;
  /** Milliseconds since 1970. */
  endsAt: number;
}
export const EntryLink = new EntitySchema<EntryLinkRow>({
  name: 'entry_link',
  columns: {
    tokenHash: { type: 'text', primary: true, name: 'token_hash' },
    scope: { type: 'text' },
    login: { type: 'text' },
    back: { type: 'text', nullable: true },
    endsAt: { type: 'integer', name: 'ends_at' },
  },
});

export const entities = [
  Draft,
  Edition,
  PersonEntity,
  Session,
  FileEntity,
  HeldForm,
  MailEntity,
  ShortAddressEntity,
  EntryLink,
  SentFileEntity,
];
