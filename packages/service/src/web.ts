import { health } from '@pallmist/api';
import { signUpForm } from '@pallmist/core';
import type { Assets } from '@pallmist/pages/server';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { apiRouter, type ApiParts } from './api/router.ts';
import { BusyGuard } from './host/busy.ts';
import { AttemptLimit } from './host/attempt-limit.ts';
import { readForm, sendsFiles } from './host/form-body.ts';
import { Forms } from './host/forms.ts';
import { PageHost } from './host/host.ts';
import type { HostedApp } from './host/hosted-app.ts';
import { busyMessage, message, strayMessage } from './host/messages.ts';
import { MailedLink } from './host/mailed-link.ts';
import { answerQrCode } from './host/qr-codes.ts';
import { isFromThisSite } from './host/same-site.ts';
import { ShortAddresses } from './host/short-addresses.ts';
import { SignIn } from './host/sign-in.ts';
import { SignUp } from './host/sign-up.ts';
import type { PostOffice } from './mail/post-office.ts';
import type { Settings } from './settings.ts';
import { version } from './version.ts';

declare module 'express-serve-static-core' {
  interface Request {
    log: Logger;
  }
}

export interface WebParts extends ApiParts {
  settings: Settings;
  log: Logger;
  post: PostOffice;
  files: { pages: string; console: string; assets: Assets };
}

const year = 365 * 24 * 60 * 60 * 1000;

/** Everything that the service answers to, from the outside in. */
export function webApp(parts: WebParts): Express {
  const { settings, live, files } = parts;
  const web = express();
  web.disable('x-powered-by');
  web.set('etag', 'weak');
  web.set('query parser', false);
  // Forwarding headers are believed from as many proxies as settings say, and from nobody else.
  web.set('trust proxy', settings.trustProxy);
  web.use(logRequests(parts.log));
  web.use(protect(settings));

  web.get('/-/health', (_, response) => {
    response.json(health.parse({ status: 'ok', version, apps: live.size }));
  });
  web.use('/-/assets', express.static(files.pages, { immutable: true, maxAge: year, index: false }));
  web.use('/-/api/v1', apiRouter(parts));
  web.use('/-/console', express.static(files.console, { index: 'index.html', setHeaders: cacheConsole }));
  // The console's own addresses are all one page, which reads them itself.
  web.get('/-/console/{*rest}', (request, response, next) => {
    if (request.path.startsWith('/-/console/assets/')) next();
    else response.sendFile('index.html', { root: files.console, headers: { 'cache-control': 'no-cache' } });
  });

  const host = new PageHost(parts.store, settings, parts.sealer, files.assets);
  const forms = new Forms(parts.store, host, settings, files.assets, parts.post, parts.base);
  const short = new ShortAddresses(parts.store, settings, parts.sealer, parts.base);
  const busy = new BusyGuard(settings.mostAtOnce);
  const signIn = new SignIn(parts.store, settings);
  const mailed = new MailedLink(parts.store, signIn, parts.post, parts.base);
  const signUp = new SignUp(parts.store, host, signIn, files.assets);
  const uploads = new AttemptLimit({ window: 10 * 60 * 1000, most: 60 });
  const send = async (hosted: HostedApp, request: Request, response: Response) => {
    const action = signIn.handles(hosted, request);
    if (!isFromThisSite(request, settings.publicUrl)) {
      host.say(
        response,
        message(hosted, 403, 'That came from another site', ['The form was not sent from this site, so it was not taken.']),
      );
      return;
    }
    if (sendsFiles(request) && (await uploads.isReached(request, response))) {
      host.say(response, message(hosted, 429, 'Too many files', ['So many files came from you that they are not taken for a while.']));
      return;
    }
    await readForm(request, response, hosted.greatestFile);
    if (action === 'out') return signIn.signOut(hosted, request, response);
    const said = await short.take(hosted, request, response);
    if (said !== false) {
      if (said) host.say(response, said);
      return;
    }
    const name = Forms.nameIn(request.form);
    if (name === signUpForm) await signUp.join(hosted, request, response);
    else if (name !== undefined) await forms.save(hosted, name, request, response);
    else if (action === 'in') await comeIn(hosted, request, response);
    else takesNone(hosted, response);
  };
  const comeIn = async (hosted: HostedApp, request: Request, response: Response) => {
    const { '~mail': mail, '~enter': token, '~back': back = '' } = request.form.texts;
    const byMail = hosted.definition.signIn?.byMail !== undefined;
    if (byMail && token !== undefined) await mailed.enter(hosted, token, request, response);
    else if (byMail && mail !== undefined) await mailed.ask(hosted, mail.trim(), back, request, response);
    else await signIn.signIn(hosted, request, response);
  };
  const takesNone = (hosted: HostedApp, response: Response) => {
    response.setHeader('allow', 'GET, HEAD');
    host.say(response, message(hosted, 405, 'That cannot be sent here', ['The page takes no such form.']));
  };
  const serve = async (hosted: HostedApp, request: Request, response: Response) => {
    if (busy.isFull) {
      response.setHeader('retry-after', '2');
      host.say(
        response,
        message(hosted, 503, 'Too many at once', ['So many people are here that we cannot keep up. Please try again in a moment.']),
      );
      return;
    }
    await busy.during(async () => {
      if (request.method === 'GET' || request.method === 'HEAD') {
        const drawn = await answerQrCode(hosted, request, response, parts.base());
        const said = drawn === false ? await short.answer(hosted, request, response) : drawn;
        if (said === false) await host.answer(hosted, request, response);
        else if (said) host.say(response, said);
      } else if (request.method === 'POST') await send(hosted, request, response);
      else takesNone(hosted, response);
    });
  };

  web.use('/-/draft', async (request, response) => {
    const app = /^\/-\/draft\/([^/?#]+)/.exec(request.originalUrl)?.[1] ?? '';
    if (!(await parts.owner.asks(request))) {
      host.say(
        response,
        message(undefined, 401, 'This is a draft', ['Drafts are shown to the owner only. Open the console by its link first.']),
      );
      return;
    }
    const hosted = await live.draft(app);
    if (!hosted) host.say(response, message(undefined, 404, 'There is no such draft', [`No app is called “${app.slice(0, 60)}”.`]));
    else if ('problems' in hosted) {
      const sentences = hosted.problems
        .slice(0, 20)
        .map(({ message: text, line }) => (line === undefined ? text : `Line ${String(line)}: ${text}`));
      host.say(response, message(undefined, 422, 'The draft cannot be shown yet', sentences));
    } else await serve(hosted, request, response);
  });

  web.use(async (request, response) => {
    const path = request.originalUrl.split(/[?#]/)[0] ?? '/';
    const hosted = path.startsWith('/-/') ? undefined : live.at(path);
    if (hosted) await serve(hosted, request, response);
    else host.say(response, strayMessage(path, live.all()));
  });

  web.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const status =
      typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
    if (status < 500) {
      host.say(
        response,
        message(undefined, status, 'That could not be understood', [
          status === 413 ? 'It sends more than is taken here.' : 'The request is not well-formed.',
        ]),
      );
      return;
    }
    request.log.error({ err: error }, 'request failed');
    host.say(response, busyMessage(live.at(request.path)));
  });
  return web;
}

/** The built files of the console have names that change with their contents; its page does not. */
function cacheConsole(response: Response, path: string): void {
  response.setHeader('cache-control', path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache');
}

function protect(settings: Settings) {
  const policy = (frameAncestors: string) =>
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          frameSrc: ["'self'"],
          formAction: ["'self'"],
          baseUri: ["'none'"],
          frameAncestors: [frameAncestors],
        },
      },
      // Only a service that the public reaches by https may promise that it always will.
      strictTransportSecurity: settings.publicUrl?.startsWith('https:') ?? false,
      xFrameOptions: { action: frameAncestors === "'self'" ? 'sameorigin' : 'deny' },
      referrerPolicy: { policy: 'same-origin' },
    });
  const framed = policy("'self'");
  const alone = policy("'none'");
  return (request: Request, response: Response, next: NextFunction) => {
    (request.path.startsWith('/-/draft/') ? framed : alone)(request, response, next);
  };
}

function logRequests(log: Logger) {
  return (request: Request, response: Response, next: NextFunction) => {
    request.log = log;
    const started = performance.now();
    response.on('finish', () => {
      // Without the query: what people search for is nobody’s business.
      const path = request.originalUrl.split('?')[0]?.slice(0, 200);
      log.debug({ method: request.method, path, status: response.statusCode, ms: Math.round(performance.now() - started) }, 'request');
    });
    next();
  };
}
