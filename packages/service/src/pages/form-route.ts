import { formAddress } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { message, type StatusMessage } from './messages.ts';
import type { Route } from './route.ts';

/** The path of a page’s template, with the names of its parameters in braces. */
const pathOf = (address: string): string => /^[^{]*(?:\{[^?][^{]*)*/.exec(address)?.[0] ?? '';

/**
 * Answers forms without JavaScript whose boxes stand in a path (`~to/PAGE`): a browser can put what was typed only into the
 * query. It leads to the address as typed, which is read as any other and says what is wrong with it.
 */
export class FormRoute implements Route {
  get(hosted: HostedApp, path: string, request: Request, response: Response): Promise<StatusMessage | 'answered' | 'not-mine'> {
    const beginning = `${hosted.compiled.mount}/~to/`;
    if (!path.startsWith(beginning)) return Promise.resolve('not-mine');
    const name = path.slice(beginning.length);
    const page = Object.hasOwn(hosted.definition.pages, name) ? hosted.definition.pages[name] : undefined;
    if (page === undefined)
      return Promise.resolve(message(hosted, 404, 'There is no such page', ['The form is of a page that is not here any more.']));
    const query = new URLSearchParams(request.originalUrl.split('?')[1] ?? '');
    const to = formAddress({ action: '', path: hosted.compiled.mount + pathOf(page.address) }, [...query]);
    if (to === undefined)
      return Promise.resolve(message(hosted, 422, 'Something is missing', ['Go back and fill in every box that the page needs.']));
    response.setHeader('cache-control', 'no-store');
    response.redirect(303, to);
    return Promise.resolve('answered');
  }
}
