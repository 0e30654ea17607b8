import type { Stores } from '../store.ts';
import { TypeormApiTokenStore } from './api-tokens.ts';
import { TypeormAppStore } from './apps.ts';
import { TypeormBuilderStore } from './builders.ts';
import { TypeormVisitStore } from './visits.ts';
import type { Connection } from './connection.ts';
import { TypeormEntryLinkStore } from './entry-links.ts';
import { TypeormFileStore } from './files.ts';
import { TypeormHeldFormStore } from './held-forms.ts';
import { TypeormLedgerStore } from './ledger.ts';
import { TypeormLinkStore } from './links.ts';
import { TypeormMailStore } from './mails.ts';
import { TypeormPeopleStore } from './people.ts';
import { TypeormReceiptStore } from './receipts.ts';
import type { TypeormRecordStore } from './records.ts';
import { TypeormSentFileStore } from './sent-files.ts';
import { TypeormSessionStore } from './sessions.ts';
import { TypeormShortAddressStore } from './short-addresses.ts';
import { TypeormWebhookStore } from './webhooks.ts';

/** All stores on one connection: the database as it is, or a transaction. */
export const storesOn = (on: Connection, records: TypeormRecordStore, keepMailDays: number): Stores => ({
  apps: new TypeormAppStore(on),
  builders: new TypeormBuilderStore(on),
  people: new TypeormPeopleStore(on),
  sessions: new TypeormSessionStore(on),
  entryLinks: new TypeormEntryLinkStore(on),
  records,
  files: new TypeormFileStore(on),
  sentFiles: new TypeormSentFileStore(on),
  heldForms: new TypeormHeldFormStore(on),
  mails: new TypeormMailStore(on, keepMailDays),
  shortAddresses: new TypeormShortAddressStore(on),
  visits: new TypeormVisitStore(on),
  receipts: new TypeormReceiptStore(on),
  apiTokens: new TypeormApiTokenStore(on),
  webhooks: new TypeormWebhookStore(on),
  links: new TypeormLinkStore(on),
  ledger: new TypeormLedgerStore(on),
});
