import type { ApiTokenStore } from './api-tokens.ts';
import type { AppStore } from './apps.ts';
import type { BuilderStore } from './builders.ts';
import type { VisitStore } from './visits.ts';
import type { EntryLinkStore } from './entry-links.ts';
import type { FileStore, SentFileStore } from './files.ts';
import type { HeldFormStore } from './held-forms.ts';
import type { LedgerStore } from './ledger.ts';
import type { LinkStore } from './links.ts';
import type { MailStore } from './mails.ts';
import type { PeopleStore } from './people.ts';
import type { ReceiptStore } from './receipts.ts';
import type { RecordStore } from './records.ts';
import type { SessionStore } from './sessions.ts';
import type { ShortAddressStore } from './short-addresses.ts';
import type { WebhookStore } from './webhooks.ts';

/** Everything that is kept, by what it is about. What a method has acknowledged is on disk. */
export interface Stores {
  apps: AppStore;
  builders: BuilderStore;
  people: PeopleStore;
  sessions: SessionStore;
  entryLinks: EntryLinkStore;
  records: RecordStore;
  files: FileStore;
  sentFiles: SentFileStore;
  heldForms: HeldFormStore;
  mails: MailStore;
  shortAddresses: ShortAddressStore;
  visits: VisitStore;
  receipts: ReceiptStore;
  apiTokens: ApiTokenStore;
  webhooks: WebhookStore;
  links: LinkStore;
  ledger: LedgerStore;
}

/** The stores of one database. */
export interface Store extends Stores {
  /** Runs `work` in one transaction: all that it writes is kept, or, when it throws, nothing of it. */
  transaction<Result>(work: (stores: Stores) => Promise<Result>): Promise<Result>;
  /** Reads and writes a little. @throws when the database cannot be read, cannot be written, or is not the one that was opened */
  probe(): Promise<void>;
  /** Finishes what is being written, then closes the database. */
  close(): Promise<void>;
}
