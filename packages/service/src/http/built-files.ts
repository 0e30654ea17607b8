import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express';

const year = 365 * 24 * 60 * 60 * 1000;
/** The best first. Made at build, beside the files. */
const packed = [
  { encoding: 'br', ending: '.br' },
  { encoding: 'gzip', ending: '.gz' },
] as const;

/**
 * Serves built files, packed where the browser takes them so and the build has made them so. Their names change with their
 * contents, so that they are kept for good.
 */
export function builtFiles(folder: string): RequestHandler {
  const files = express.static(folder, { immutable: true, maxAge: year, index: false });
  return (request: Request, response: Response, next: NextFunction) => {
    const path = request.path;
    const accepted = request.headers['accept-encoding'] ?? '';
    if (!/^\/[A-Za-z0-9_./-]+\.(?:js|css|svg|json)$/.test(path) || path.includes('..')) {
      files(request, response, next) as unknown;
      return;
    }
    response.vary('accept-encoding');
    const found = packed.find(({ encoding, ending }) => accepted.includes(encoding) && existsSync(join(folder, path + ending)));
    if (found !== undefined) {
      response.type(path.slice(path.lastIndexOf('.')));
      response.setHeader('content-encoding', found.encoding);
      request.url = request.url.replace(path, path + found.ending);
    }
    files(request, response, next) as unknown;
  };
}
