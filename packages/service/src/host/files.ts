import type { Response } from 'express';
import type { FileStore } from '../store/files.ts';
import type { HostedApp } from './hosted-app.ts';

const types: Record<string, string> = {
  svg: 'image/svg+xml',
  png: 'image/png',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  avif: 'image/avif',
};

/** The name of the picture that a path of the app asks for; undefined for any other path. */
export function wantedFile(hosted: HostedApp, path: string): string | undefined {
  const beginning = `${hosted.compiled.mount}/~files/`;
  return path.startsWith(beginning) ? path.slice(beginning.length) : undefined;
}

/** Sends one of an app's pictures. @returns false when there is none of the name */
export async function sendFile(files: FileStore, hosted: HostedApp, name: string, response: Response): Promise<boolean> {
  const type = types[name.split('.').at(-1) ?? ''];
  const file = type === undefined ? null : await files.find(hosted.definition.app, name);
  if (file === null || type === undefined) return false;
  // A drawing could hold a script, were it opened by itself.
  response.setHeader('content-security-policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
  response.setHeader('cache-control', 'public, max-age=300');
  response.type(type).send(Buffer.from(file.bytes));
  return true;
}
