import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { AppService } from './api/app-service.ts';
import { Owner } from './api/owner.ts';
import { browserFiles } from './browser-files.ts';
import { LiveApps } from './host/live-apps.ts';
import { StartError, type Settings } from './settings.ts';
import { PostOffice } from './mail/post-office.ts';
import { KeyRing } from './seals/key-ring.ts';
import { Sealer } from './seals/sealer.ts';
import { openStore, type Store } from './store/open-store.ts';
import { webApp } from './web.ts';

/** Bytes of a request’s head, which must hold an address that is far too long, so that it gets a page and not a cut line. */
const mostHeaderBytes = 512 * 1024;
/** Milliseconds that requests have to end when the service stops. */
const patience = 10_000;

/** A running service. */
export interface Service {
  /** Where it serves, such as http://127.0.0.1:4680. */
  base: string;
  /** Opens the console once. */
  consoleLink: string;
  apps: AppService;
  store: Store;
  /** Finishes the requests that are under way, then closes the database. */
  stop(): Promise<void>;
}

/** @throws StartError with a sentence for people when it cannot be started */
export async function startService(settings: Settings): Promise<Service> {
  const log = pino({ level: settings.log, base: null, timestamp: pino.stdTimeFunctions.isoTime }, pino.destination(2));
  const files = browserFiles();
  const store = await openStore(settings.data);
  const keys = new KeyRing(join(settings.data, 'keys.json'));
  const sealer = new Sealer(keys);
  const live = new LiveApps(store);
  await live.load();
  const owner = new Owner(store, settings);
  const apps = new AppService(store, live);
  const post = new PostOffice(store.mails, settings, log);
  let own = '';
  const publicBase = () => settings.publicUrl?.replace(/\/$/, '') ?? own;
  const server = createServer(
    { maxHeaderSize: mostHeaderBytes },
    webApp({ settings, log, files, store, live, apps, owner, keys, sealer, post, base: publicBase }),
  );
  server.on('clientError', (error: NodeJS.ErrnoException, socket) => {
    const status = error.code === 'HPE_HEADER_OVERFLOW' ? '431 Request Header Fields Too Large' : '400 Bad Request';
    if (socket.writable)
      socket.end(
        `HTTP/1.1 ${status}\r\ncontent-type: text/plain\r\nconnection: close\r\n\r\nThe request is not well-formed, or its address is far too long.\n`,
      );
  });
  try {
    await listen(server, settings);
  } catch (error) {
    await store.close();
    throw error;
  }
  const { port } = server.address() as AddressInfo;
  const base = `http://${settings.host.includes(':') ? `[${settings.host}]` : settings.host}:${String(port)}`;
  own = base;
  await post.open();
  log.info({ base }, 'serving');
  return {
    base,
    consoleLink: owner.newConsoleLink(publicBase()),
    apps,
    store,
    async stop() {
      await new Promise<void>((resolve) => {
        const impatient = setTimeout(() => {
          server.closeAllConnections();
        }, patience);
        server.close(() => {
          clearTimeout(impatient);
          resolve();
        });
        server.closeIdleConnections();
      });
      post.close();
      await store.close();
      log.info('stopped');
    },
  };
}

function listen(server: Server, { port, host }: Settings): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const place = `${host}:${String(port)}`;
      if (error.code === 'EADDRINUSE')
        reject(new StartError(`Port ${String(port)} on ${host} is in use. Stop what is there, or set PALLMIST_PORT to another port.`));
      else if (error.code === 'EACCES')
        reject(new StartError(`The port ${String(port)} may not be used by this account. Set PALLMIST_PORT to one above 1023.`));
      else reject(new StartError(`The service cannot listen at ${place}: ${error.message}. Check PALLMIST_HOST and PALLMIST_PORT.`));
    });
    server.listen(port, host, resolve);
  });
}
