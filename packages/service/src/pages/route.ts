import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { StatusMessage } from './messages.ts';

/** Answers the paths of an app that are no pages: its files, codes and short addresses. */
export interface Route {
  /** @param path of the request, without its query @returns what to say, where it has not answered itself */
  get(hosted: HostedApp, path: string, request: Request, response: Response): Promise<StatusMessage | 'answered' | 'not-mine'>;
}
