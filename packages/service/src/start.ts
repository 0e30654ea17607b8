import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { AppEditor } from './apps/app-editor.ts';
import { DraftChanges } from './apps/draft-changes.ts';
import { DraftKeeper } from './apps/draft-keeper.ts';
import { Ledger } from './ledger/ledger.ts';
import { Rehearsals } from './apps/rehearsals.ts';
import { LinkPromises } from './apps/link-promises.ts';
import { LiveApps } from './apps/live-apps.ts';
import { Builders } from './builders/builders.ts';
import { DraftEvents } from './builders/draft-events.ts';
import { Looks } from './builders/looks.ts';
import { Trials } from './builders/trials.ts';
import { systemClock, type Clock } from './clock.ts';
import { lockDirectory } from './directory-lock.ts';
import { serviceLog } from './service-log.ts';
import { browserFiles } from './http/browser-files.ts';
import { AppCookies } from './http/cookies.ts';
import { draftWeb } from './http/draft-web.ts';
import { LoadGuard } from './http/load-guard.ts';
import { Origins } from './http/origins.ts';
import { AppHost } from './pages/app-host.ts';
import { closeServer, httpServer, listen, listenForDrafts } from './http/server.ts';
import { webApp } from './http/web.ts';
import { PostOffice } from './mail/post-office.ts';
import { PasswordTurns } from './people/password-turns.ts';
import { Passwords } from './people/passwords.ts';
import { KeyRing } from './seals/key-ring.ts';
import { Sealer } from './seals/sealer.ts';
import type { Settings } from './settings.ts';
import { openStore } from './store/open-store.ts';
import type { Store } from './store/store.ts';
import { StartError } from './start-error.ts';
import { databaseFile, keysFile } from './upkeep/data-files.ts';
import { WebhookSender } from './webhooks/webhook-sender.ts';

/** A running service. */
export interface Service {
  /** Where it serves, such as http://127.0.0.1:4680. */
  base: string;
  /** Where it serves drafts, such as http://127.0.0.1:4681. */
  drafts: string;
  /** Opens the console once. */
  consoleLink: string;
  apps: AppEditor;
  rehearsals: Rehearsals;
  live: LiveApps;
  store: Store;
  /** Finishes the requests that are under way, then closes the database. */
  stop(): Promise<void>;
}

export interface StartOptions {
  /** The time; the machine’s when left out. */
  clock?: Clock;
  /** How passwords are hashed; as today’s advice has it when left out. */
  passwords?: Passwords;
}

/** @throws StartError with a sentence for people when it cannot be started */
export async function startService(
  settings: Settings,
  { clock = systemClock, passwords = new Passwords() }: StartOptions = {},
): Promise<Service> {
  const log = serviceLog(settings.log);
  const files = browserFiles();
  const unlock = lockDirectory(settings.data);
  /** What has been opened so far, to be closed in reverse. */
  const closers: (() => unknown)[] = [unlock];
  const close = async () => {
    for (const closer of closers.reverse()) await closer();
  };
  try {
    const present = [databaseFile, keysFile].map((name) => existsSync(join(settings.data, name)));
    if (present[1] === true && present[0] === false)
      throw new StartError(
        `${settings.data} has ${keysFile}, but the database ${databaseFile} is missing. Put it back, or restore a backup. To begin with nothing, set PALLMIST_DATA to an empty directory.`,
      );
    const store = await openStore(settings.data, { clock, passwords, keepMailDays: settings.keepMailDays });
    closers.push(() => store.close());
    // To make new keys in silence would void every sealed address that was sent.
    if (present[0] === true && present[1] === false && (await store.apps.editions()).length > 0)
      throw new StartError(
        `${settings.data} has a database, but ${keysFile} is missing. Put it back from a backup. If it is lost, write [] into it: new keys are made then, and values that were sealed before can no longer be opened.`,
      );
    const keys = new KeyRing(join(settings.data, keysFile), clock);
    const keeper = new DraftKeeper();
    const events = new DraftEvents();
    const live = new LiveApps(store, clock, log, keeper);
    await live.load();
    const sealer = new Sealer(keys, clock);
    const promises = new LinkPromises(store, sealer, clock);
    const ledger = new Ledger(store.ledger, settings, log, clock);
    closers.push(() => ledger.close());
    const rehearsals = new Rehearsals({ store, keeper, promises, ledger });
    const apps = new AppEditor({ store, live, settings, clock, log, keeper, events, promises });
    closers.push(() => apps.close());
    const origins = new Origins(settings);
    const builders = new Builders(store, settings, origins);
    const trials = new Trials({ live, store, cookies: new AppCookies(origins), settings });
    const looks = new Looks({ store, builders, origins, clock });
    const changes = new DraftChanges(store, keeper, events);
    const post = new PostOffice(store.mails, settings, log, clock);
    closers.push(() => post.close(settings.shutdownTimeout));
    const webhooks = new WebhookSender(store.webhooks, log, clock, settings);
    closers.push(() => webhooks.close(settings.shutdownTimeout));
    const guard = new LoadGuard(settings.maxConcurrent);
    closers.push(() => {
      guard.close();
    });
    let own = '';
    const base = () => settings.publicUrl?.replace(/\/$/, '') ?? own;
    const parts = {
      settings,
      clock,
      log,
      files,
      store,
      live,
      apps,
      promises,
      rehearsals,
      ledger,
      changes,
      builders,
      looks,
      trials,
      origins,
      events,
      keys,
      sealer,
      passwordTurns: new PasswordTurns(),
      post,
      webhooks,
      base,
    };
    const host = new AppHost(parts, guard);
    const server = httpServer(webApp(parts, guard, host));
    const port = await listen(server, settings);
    closers.push(() => closeServer(server, settings.shutdownTimeout));
    const draftServer = httpServer(draftWeb(parts, host));
    const draftPort = await listenForDrafts(draftServer, settings, port);
    closers.push(() => closeServer(draftServer, settings.shutdownTimeout));
    origins.listening({ service: port, drafts: draftPort });
    const at = (where: number) => `http://${settings.host.includes(':') ? `[${settings.host}]` : settings.host}:${String(where)}`;
    own = at(port);
    closers.push(() => {
      events.close();
    });
    post.open();
    webhooks.open();
    ledger.open();
    apps.open();
    log.info({ base: own, drafts: at(draftPort) }, 'serving');
    let stopping: Promise<void> | undefined;
    return {
      base: own,
      drafts: at(draftPort),
      consoleLink: builders.newConsoleLink(base()),
      apps,
      rehearsals,
      live,
      store,
      stop: () =>
        (stopping ??= close().then(() => {
          log.info('stopped');
        })),
    };
  } catch (error) {
    await close();
    throw error;
  }
}
