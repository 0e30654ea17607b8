import { PallmistError } from '@pallmist/app';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { problemDetails } from '../api/problem-details.ts';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppHost } from '../pages/app-host.ts';
import { failureMessage, message } from '../pages/messages.ts';
import type { ServiceParts } from '../service-parts.ts';
import { refusedHead } from './door.ts';
import { logRequests } from './request-log.ts';

/** What every request passes first, at either origin. */
export function outerLayers({ settings, log }: ServiceParts, headers: RequestHandler): Express {
  const web = express();
  web.disable('x-powered-by');
  web.set('etag', 'weak');
  web.set('query parser', false);
  // Forwarding headers are believed from as many proxies as settings say, and from nobody else.
  web.set('trust proxy', settings.trustProxy);
  web.use(logRequests(log));
  web.use(headers);
  web.use((request, _, next) => {
    next(refusedHead(request));
  });
  return web;
}

/** What every error comes to, at either origin: a sentence, and never a stack trace. */
export const sayFailures =
  (host: AppHost, appAt: (path: string) => HostedApp | undefined): ErrorRequestHandler =>
  (error: unknown, request, response, next) => {
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
      else host.say(response, message(appAt(request.path), status, 'Request rejected', [{ said: sentence }]));
      return;
    }
    request.log.error({ err: error }, 'request failed');
    host.say(response, failureMessage(appAt(request.path)));
  };

/** The status that an error carries, as ours and those of Express do. */
export const statusOf = (error: unknown): number =>
  typeof error === 'object' && error !== null && 'status' in error && typeof error.status === 'number' ? error.status : 500;
