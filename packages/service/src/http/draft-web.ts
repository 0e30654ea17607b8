import type { RequestListener } from 'node:http';
import compression from 'compression';
import type { Request, RequestHandler } from 'express';
import { maySeeDrafts } from '../api/access.ts';
import type { AppHost } from '../pages/app-host.ts';
import { plainMessage } from '../pages/messages.ts';
import type { ServiceParts } from '../service-parts.ts';
import { builtFiles } from './built-files.ts';
import { outerLayers, sayFailures } from './layers.ts';
import { leadsOn, redirect } from './location.ts';
import { draftHeaders } from './security-headers.ts';

/** The app that a path under /~/draft or /~/published names. */
export const appBeside = ({ originalUrl }: Pick<Request, 'originalUrl'>): string =>
  /^\/~\/(?:draft|published)\/([^/?#]+)/.exec(originalUrl)?.[1] ?? '';

/**
 * What is served at the origin of drafts: drafts, what is published beside them, and the files that their pages need. The
 * console and the HTTP interface are not there, and what a browser may do there ends with looking.
 */
export function draftWeb(parts: ServiceParts, host: AppHost): RequestListener {
  const { live, events, files, looks, origins } = parts;
  const web = outerLayers(parts, draftHeaders(origins));
  web.use('/~/assets', builtFiles(files.pages));
  web.use(compression({ threshold: 1024 }));
  web.get('/robots.txt', (_, response) => {
    response.type('text').send('User-agent: *\nDisallow: /\n');
  });
  web.get('/~/enter', async (request, response) => {
    const name = new URLSearchParams(request.originalUrl.split('?')[1]).get('ticket') ?? '';
    const ticket = await looks.enter(name, request, response);
    response.setHeader('cache-control', 'no-store');
    if (ticket === undefined)
      host.say(response, plainMessage(401, 'This address works once', ['Open the draft again in the console, or reload the console.']));
    else {
      const app = appBeside({ originalUrl: ticket.to });
      if (ticket.as !== undefined) await parts.trials.signIn(app, ticket.as, request, response);
      redirect(response, 303, ticket.to);
    }
  });
  const forBuilders: RequestHandler = async (request, response, next) => {
    const builder = await looks.who(request);
    const app = appBeside(request);
    if (!maySeeDrafts(builder, app)) {
      host.say(
        response,
        plainMessage(401, 'This is for builders', [
          'Drafts, and what is published beside them, are shown to builders only. Open the draft in the console: that lets this browser in.',
        ]),
      );
      return;
    }
    // Only frames ask so: neither a tab nor a script of the page.
    if (request.method === 'GET' && request.headers['sec-fetch-dest'] === 'iframe')
      response.on('finish', () => {
        if (!leadsOn(response)) events.tellBuilder(app, builder.id, { kind: 'shown', address: request.originalUrl });
      });
    next();
  };
  web.use(['/~/draft', '/~/published'], forBuilders);
  web.get('/~/draft/:app/~changes', async (request, response) => {
    const builder = await looks.who(request);
    if (builder === undefined || !events.open(request.params.app, builder, response, true))
      host.say(response, plainMessage(503, 'Too many at once', ['Too many pages and consoles have this draft open.']));
  });
  web.use('/~/published', async (request, response) => {
    const hosted = live.beside(appBeside(request));
    if (!hosted) host.say(response, plainMessage(404, 'Nothing is published', ['Publish the draft first.']));
    else if (request.method === 'POST')
      host.say(
        response,
        plainMessage(405, 'Forms are disabled in this preview', [
          'It shows the published app beside the draft. Open the app itself to send the form.',
        ]),
      );
    else await host.answer(hosted, request, response);
  });
  web.use('/~/draft', async (request, response) => {
    const app = appBeside(request);
    const hosted = await live.draft(app);
    if (!hosted) host.say(response, plainMessage(404, 'There is no such draft', [`No app is called “${app.slice(0, 60)}”.`]));
    else if ('problems' in hosted) {
      const sentences = hosted.problems
        .slice(0, 20)
        .map(({ message: text, line }) => (line === undefined ? text : `Line ${String(line)}: ${text}`));
      host.say(response, plainMessage(422, 'The draft cannot be shown yet', sentences));
    } else await host.answer(hosted, request, response);
  });
  web.use((_, response) => {
    host.say(response, plainMessage(404, 'Nothing is here', ['This address shows drafts only. The console and the apps are beside it.']));
  });
  web.use(sayFailures(host, () => undefined));
  return web;
}
