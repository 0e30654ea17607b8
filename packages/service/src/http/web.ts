import type { RequestListener } from 'node:http';
import compression from 'compression';
import type { Express, RequestHandler } from 'express';
import { referencePage, referenceStyle } from '../api/reference-page.ts';
import { maySeeDrafts } from '../api/access.ts';
import { apiRouter } from '../api/router.ts';
import { docsStyle } from '../docs/docs-style.ts';
import { docsSite } from '../docs/docs-site.ts';
import { plainMessage, strayMessage } from '../pages/messages.ts';
import type { AppHost } from '../pages/app-host.ts';
import type { ServiceParts } from '../service-parts.ts';
import { builtFiles } from './built-files.ts';
import { consoleFiles } from './console-files.ts';
import { appBeside } from './draft-web.ts';
import { checkReadiness, DatabaseProbe } from './health.ts';
import { outerLayers, sayFailures } from './layers.ts';
import type { LoadGuard } from './load-guard.ts';
import { redirectToOrigin } from './location.ts';
import { noDraftOrigin } from './origins.ts';
import { robots } from './robots.ts';
import { securityHeaders } from './security-headers.ts';
import { version } from '../version.ts';

/** Everything that the service answers to, from the outside in. All that is its own is under `/~/`. */
export function webApp(parts: ServiceParts, guard: LoadGuard, host: AppHost): RequestListener {
  const { live, files } = parts;
  const web = outerLayers(parts, securityHeaders(parts.origins));

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

  web.use(['/~/draft', '/~/published'], leadToDrafts(parts, host));

  web.use(async (request, response) => {
    const path = request.originalUrl.split(/[?#]/)[0] ?? '/';
    const hosted = isOwn(path) ? undefined : live.at(path);
    if (hosted) await host.answer(hosted, request, response);
    else host.say(response, strayMessage(path, live.all()));
  });

  web.use(sayFailures(host, (path) => live.at(path)));
  return atTheDoor(web, guard, (path) => {
    const hosted = isOwn(path) ? undefined : live.at(path);
    return hosted && host.busyPage(hosted);
  });
}

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

/**
 * Leads builders to the origin of drafts, with a ticket for it. A program with a token sends the token there again: its own
 * redirect is not followed with it.
 */
function leadToDrafts({ builders, looks, origins }: ServiceParts, host: AppHost): RequestHandler {
  return async (request, response) => {
    const builder = await builders.who(request);
    const origin = origins.ofDrafts(request);
    if (!maySeeDrafts(builder, appBeside(request)))
      host.say(
        response,
        plainMessage(401, 'This is for builders', [
          'Drafts, and what is published beside them, are shown to builders only. Open the console by its link, or sign in to it, first.',
        ]),
      );
    else if (origin === undefined) host.say(response, plainMessage(503, 'Drafts have no address yet', [noDraftOrigin]));
    else {
      const to = request.originalUrl;
      redirectToOrigin(response, origin, request.headers.authorization === undefined ? looks.addressWith({ builder: builder.id, to }) : to);
    }
  };
}
