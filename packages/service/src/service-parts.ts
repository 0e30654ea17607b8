import type { Assets } from '@pallmist/pages/server';
import type { Ledger } from './ledger/ledger.ts';
import type { Logger } from 'pino';
import type { Builders } from './builders/builders.ts';
import type { DraftEvents } from './builders/draft-events.ts';
import type { Looks } from './builders/looks.ts';
import type { Trials } from './builders/trials.ts';
import type { Origins } from './http/origins.ts';
import type { DraftChanges } from './apps/draft-changes.ts';
import type { AppEditor } from './apps/app-editor.ts';
import type { LinkPromises } from './apps/link-promises.ts';
import type { Rehearsals } from './apps/rehearsals.ts';
import type { LiveApps } from './apps/live-apps.ts';
import type { Clock } from './clock.ts';
import type { PostOffice } from './mail/post-office.ts';
import type { PasswordTurns } from './people/password-turns.ts';
import type { KeyRing } from './seals/key-ring.ts';
import type { Sealer } from './seals/sealer.ts';
import type { Settings } from './settings.ts';
import type { Store } from './store/store.ts';
import type { WebhookSender } from './webhooks/webhook-sender.ts';

/** What the service is made of, put together at start. */
export interface ServiceParts {
  settings: Settings;
  clock: Clock;
  log: Logger;
  store: Store;
  live: LiveApps;
  apps: AppEditor;
  promises: LinkPromises;
  rehearsals: Rehearsals;
  ledger: Ledger;
  changes: DraftChanges;
  builders: Builders;
  /** Who may look at drafts. */
  looks: Looks;
  trials: Trials;
  origins: Origins;
  events: DraftEvents;
  keys: KeyRing;
  sealer: Sealer;
  passwordTurns: PasswordTurns;
  post: PostOffice;
  webhooks: WebhookSender;
  /** Where the public reaches the service, without a “/” at the end. */
  base: () => string;
  /** The built files for browsers. */
  files: { pages: string; console: string; assets: Assets };
}
