import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import type { Settings } from '../settings.ts';

/** Headers by which browsers hold a page to what it is: no script but our own, no frame but the console’s around what builders look at. */
export function securityHeaders(settings: Pick<Settings, 'publicUrl'>) {
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
    (/^\/~\/(?:draft|published)\//.test(request.path) ? framed : alone)(request, response, next);
  };
}
