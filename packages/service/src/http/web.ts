import type { RequestListener } from 'node:http';
import { PallmistError } from '@pallmist/app';
import compression from 'compression';
import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import { referencePage, referenceStyle } from '../api/reference-page.ts';
import { maySee } from '../api/access.ts';
import { apiRouter } from '../api/router.ts';
import { docsStyle } from '../docs/docs-style.ts';
import { docsSite } from '../docs/docs-site.ts';
import { failureMessage, message, strayMessage } from '../pages/messages.ts';
import { AppHost } from '../pages/app-host.ts';
import type { ServiceParts } from '../service-parts.ts';
import { problemDetails } from '../api/problem-details.ts';
import { refusedHead } from './door.ts';
import { builtFiles } from './built-files.ts';
import { consoleFiles } from './console-files.ts';
import { checkReadiness, DatabaseProbe } from './health.ts';
import type { LoadGuard } from './load-guard.ts';
import { robots } from './robots.ts';
import { logRequests } from './request-log.ts';
import { securityHeaders } from './security-headers.ts';
import { version } from '../version.ts';

/** Everything that the service answers to, from the outside in. All that is its own is under `/~/`. */
export function webApp(parts: ServiceParts, guard: LoadGuard): RequestListener {
  const { settings, live, files } = parts;
  const web = express();
  web.disable('x-powered-by');
  web.set('etag', 'weak');
  web.set('query parser', false);
  // Forwarding headers are believed from as many proxies as settings say, and from nobody else.
  web.set('trust proxy', settings.trustProxy);
  web.use(logRequests(parts.log));
  web.use(securityHeaders(settings));
  web.use((request, _, next) => {
    next(refusedHead(request));
  });

  web.get('/~/health', (_, response) => {
    response.json({ status: 'ok', version, apps: live.size });
  });
  const database = new DatabaseProbe(parts);
  web.get('/~/ready', async (_, response) => {
    const readiness = await checkReadiness(parts, database, guard);
    response
      .status(readiness.status === 'ready' ? 200 : 503)
      .setHeader('cache-control', 'no-store')
      .json(readiness);
  });
  web.use('/~/assets', builtFiles(files.pages));
  web.use(compression({ threshold: 1024 }));
  const reference = referencePage(version, [...files.assets.styles, '/~/api/style.css']);
  web.get('/~/api/style.css', (_, response) => {
    response
      .type('css')
      .setHeader('cache-control', 'public, max-age=3600')
      .send(referenceStyle + docsStyle);
  });
  web.get('/~/api', (_, response) => {
    response.type('html').send(reference);
  });
  web.use('/~/docs', docsSite([...files.assets.styles, '/~/api/style.css']));
  web.get(
    '/robots.txt',
    robots(() => live.all(), parts.base),
  );
  web.use('/~/api/v1', apiRouter(parts));
  web.use('/~/console', consoleFiles(files.console));

  const host = new AppHost(parts, guard);
  web.use(['/~/draft', '/~/published'], async (request, response, next) => {
    if (await maySee(parts.builders, request, appBeside(request))) next();
    else
      host.say(
        response,
        message(undefined, 401, 'This is for builders', [
          'Drafts, and what is published beside them, are shown to builders only. Open the console by its link, or sign in to it, first.',
        ]),
      );
  });
  web.use('/~/published', async (request, response) => {
    const hosted = live.beside(appBeside(request));
    if (!hosted) host.say(response, message(undefined, 404, 'Nothing is published', ['Publish the draft first.']));
    else if (request.method === 'POST')
      host.say(
        response,
        message(hosted, 405, 'Forms are disabled in this preview', [
          'It shows the published app beside the draft. Open the app itself to send the form.',
        ]),
      );
    else await host.answer(hosted, request, response);
  });
  web.use('/~/draft', async (request, response) => {
    const app = appBeside(request);
    const hosted = await live.draft(app);
    if (!hosted) host.say(response, message(undefined, 404, 'There is no such draft', [`No app is called “${app.slice(0, 60)}”.`]));
    else if ('problems' in hosted) {
      const sentences = hosted.problems
        .slice(0, 20)
        .map(({ message: text, line }) => (line === undefined ? text : `Line ${String(line)}: ${text}`));
      host.say(response, message(undefined, 422, 'The draft cannot be shown yet', sentences));
    } else await host.answer(hosted, request, response);
  });

  web.use(async (request, response) => {
    const path = request.originalUrl.split(/[?#]/)[0] ?? '/';
    const hosted = isOwn(path) ? undefined : live.at(path);
    if (hosted) await host.answer(hosted, request, response);
    else host.say(response, strayMessage(path, live.all()));
  });

  web.use((error: unknown, request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const status = statusOf(error);
    if (status < 500) {
      const ours = error instanceof PallmistError || (status !== 400 && error instanceof Error);
      const sentence = ours ? error.message : 'The request is not well-formed.';
      // The head of a request for the HTTP interface is refused before its router is asked.
      if (request.path.startsWith('/~/api/'))
        response
          .status(status)
          .type('application/problem+json')
          .send(JSON.stringify(problemDetails(status, sentence)));
      else host.say(response, message(live.at(request.path), status, 'Request rejected', [sentence]));
      return;
    }
    request.log.error({ err: error }, 'request failed');
    host.say(response, failureMessage(live.at(request.path)));
  });
  return atTheDoor(web, guard, (path) => {
    const hosted = isOwn(path) ? undefined : live.at(path);
    return hosted && host.busyPage(hosted);
  });
}

/** The app that a path under /~/draft or /~/published names. */
const appBeside = ({ originalUrl }: Request) => /^\/~\/(?:draft|published)\/([^/?#]+)/.exec(originalUrl)?.[1] ?? '';

/** Pallmist’s own paths: health, readiness, the console, the HTTP interface. */
const isOwn = (path: string) => path === '/~' || path.startsWith('/~/');

/** Tells those who would wait too long at once, before anything is done for them; what is Pallmist’s own is let in. */
function atTheDoor(web: Express, guard: LoadGuard, busyPage: (path: string) => string | undefined): RequestListener {
  return (request, response) => {
    const page = guard.isOverloaded ? busyPage(request.url?.split('?')[0] ?? '') : undefined;
    if (page === undefined) {
      web(request, response);
      return;
    }
    const more = request.method === 'POST' ? { connection: 'close' } : {};
    response.writeHead(503, { 'content-type': 'text/html; charset=utf-8', 'retry-after': '2', 'cache-control': 'no-store', ...more });
    response.end(page);
  };
}

/** The status that an error carries, as ours and those of Express do. */
export const statusOf = (error: unknown): number =>
  typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
