import { randomUUID } from 'node:crypto';
import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';

declare module 'express-serve-static-core' {
  interface Request {
    log: Logger;
  }
}

/** Gives each request an id, which its answer and every line of the log about it carry. */
export function logRequests(log: Logger) {
  return (request: Request, response: Response, next: NextFunction) => {
    const id = randomUUID();
    request.log = log.child({ request: id });
    response.setHeader('x-request-id', id);
    const started = performance.now();
    response.on('finish', () => {
      // Without the query: what people search for is nobody’s business.
      const path = request.originalUrl.split('?')[0]?.slice(0, 200);
      request.log.debug(
        { method: request.method, path, status: response.statusCode, ms: Math.round(performance.now() - started) },
        'request',
      );
    });
    next();
  };
}
