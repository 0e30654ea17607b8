import { fileNameIn, mediaTypeOf } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { Store } from '../store/store.ts';
import type { HostedApp } from '../apps/hosted-app.ts';
import { message } from './messages.ts';
import type { Route } from './route.ts';

/** The file that a path of the app asks for (`~files/NAME`); undefined for any other path. */
function wantedFile(hosted: HostedApp, path: string): string | undefined {
  const beginning = `${hosted.compiled.mount}/~files/`;
  if (!path.startsWith(beginning)) return undefined;
  try {
    return decodeURIComponent(path.slice(beginning.length));
  } catch {
    return '';
  }
}

/** Sends a file of an app, or a file that a visitor has sent with a form. @returns false when there is none of the name */
async function sendFile(store: Store, hosted: HostedApp, wanted: string, response: Response): Promise<boolean> {
  const { app } = hosted.definition;
  const type = mediaTypeOf(wanted);
  const isPicture = type.startsWith('image/');
  const sent = wanted.includes('/');
  const bytes = sent ? await store.sentFiles.bytes(app, wanted) : isPicture ? await store.files.find(app, wanted) : undefined;
  if (bytes === undefined) return false;
  // A drawing could hold a script, were it opened by itself.
  response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
  // A file that a visitor has sent never changes under its name, and is not for caches that many share.
  response.setHeader('cache-control', sent ? 'private, max-age=31536000, immutable' : 'public, max-age=300');
  // Anything but a picture is for saving, not for showing under this site's name.
  if (!isPicture) response.attachment(fileNameIn(wanted));
  response.type(type).send(bytes);
  return true;
}

/** Answers for the files of an app, and for those that visitors have sent. */
export class FileRoute implements Route {
  readonly #store: Store;

  constructor(store: Store) {
    this.#store = store;
  }

  async get(hosted: HostedApp, path: string, _: Request, response: Response): ReturnType<Route['get']> {
    const wanted = wantedFile(hosted, path);
    if (wanted === undefined) return 'not-mine';
    const sent = await sendFile(this.#store, hosted, wanted, response);
    return sent ? 'answered' : message(hosted, 404, 'There is no such file', ['It may have been renamed or removed.']);
  }
}
