import type { NextFunction, Request, RequestHandler, Response } from 'express';

/** Seconds for which a browser may keep the answer to a preflight request. */
const preflightAge = 3600;

/**
 * Lets programs of other sites, as far as the owner names them, call the HTTP interface from a browser (Fetch, CORS). They
 * call it with a token: cookies of the console are not for them.
 * @param origins such as `https://desk.quillmoor.example`
 */
export function allowOrigins(origins: readonly string[]): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    response.vary('Origin');
    const { origin } = request.headers;
    if (origin === undefined || !origins.includes(origin)) {
      next();
      return;
    }
    response.setHeader('access-control-allow-origin', origin);
    response.setHeader('access-control-expose-headers', 'etag, retry-after');
    if (request.method !== 'OPTIONS' || request.headers['access-control-request-method'] === undefined) {
      next();
      return;
    }
    response.setHeader('access-control-allow-methods', 'GET, POST, PUT, PATCH, DELETE');
    response.setHeader('access-control-allow-headers', 'authorization, content-type, if-match, if-none-match');
    response.setHeader('access-control-max-age', String(preflightAge));
    response.status(204).end();
  };
}
