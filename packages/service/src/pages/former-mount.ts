import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Route } from './route.ts';
import { redirect } from '../http/location.ts';

/**
 * Answers for what is no page at a place where the app stood once: its short addresses, codes and files are where the app
 * is today. Pages are led on when their address is read.
 */
export class FormerMountRoute implements Route {
  get(
    { compiled: { mount, formerMounts } }: HostedApp,
    path: string,
    request: Request,
    response: Response,
  ): Promise<'answered' | 'not-mine'> {
    if (path.startsWith(`${mount}/~`)) return Promise.resolve('not-mine');
    const former = formerMounts.find((one) => path.startsWith(`${one}/~`));
    if (former === undefined) return Promise.resolve('not-mine');
    redirect(response, 301, mount + request.originalUrl.slice(former.length));
    return Promise.resolve('answered');
  }
}
