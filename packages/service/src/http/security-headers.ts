import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import type { Origins } from './origins.ts';

interface Frames {
  /** What may show the page in a frame, as sources of a content security policy. */
  around: (request: Request) => string;
  /** What the page may show in frames. */
  within?: (request: Request) => string[];
  secure: boolean;
}

/** Headers by which browsers hold a page to what it is: no script but our own, and no frame but the console’s around it. */
const headers = ({ around, within, secure }: Frames) =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        frameSrc: within === undefined ? ["'none'"] : [(request) => within(request as Request).join(' ')],
        formAction: ["'self'"],
        baseUri: ["'none'"],
        frameAncestors: [(request) => around(request as Request)],
      },
    },
    // Only a service that the public reaches by https may promise that it always will.
    strictTransportSecurity: secure,
    // It knows no origin but the page’s own; every browser that the console runs in knows `frame-ancestors`.
    xFrameOptions: false,
    referrerPolicy: { policy: 'same-origin' },
  });

const noFrame = "'none'";

/** For the console, the published apps and the HTTP interface. */
export function securityHeaders(origins: Origins): RequestHandler {
  const secure = origins.isSecure(false);
  const framesOf = (request: Request) => ["'self'", origins.ofDrafts(request) ?? ''];
  const console = headers({ around: () => noFrame, within: framesOf, secure });
  // What the service says instead of leading on to a draft stands in the console’s frame.
  const messages = headers({ around: () => "'self'", secure });
  const alone = headers({ around: () => noFrame, secure });
  return (request: Request, response: Response, next: NextFunction) => {
    const { path } = request;
    (path.startsWith('/~/console') ? console : isBeside(path) ? messages : alone)(request, response, next);
  };
}

/** For drafts, which only the console may show in a frame. */
export const draftHeaders = (origins: Origins): RequestHandler =>
  headers({ around: (request) => origins.ofConsole(request), secure: origins.isSecure(true) });

/** Whether a path is that of a draft, or of what is published beside it. */
export const isBeside = (path: string): boolean => /^\/~\/(?:draft|published)(?:\/|$)/.test(path);
