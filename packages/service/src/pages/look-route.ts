import { lookStyle } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Route } from './route.ts';

/** Answers for the style sheet of an app’s look (`~look.css`), whose address changes with it. */
export class LookRoute implements Route {
  get(hosted: HostedApp, path: string, _: Request, response: Response): Promise<'answered' | 'not-mine'> {
    if (path !== `${hosted.compiled.mount}/~look.css`) return Promise.resolve('not-mine');
    response.setHeader('cache-control', 'public, max-age=31536000, immutable');
    response.type('css').send(lookStyle(hosted.definition.look ?? {}));
    return Promise.resolve('answered');
  }
}
