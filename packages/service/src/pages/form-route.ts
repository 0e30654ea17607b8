import { own, formAddress, pathTemplate } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { message, valuesAnywhere, type StatusMessage } from './messages.ts';
import type { Route } from './route.ts';
import { redirect } from '../http/location.ts';

/**
 * Answers forms without JavaScript whose boxes fill a path (`~to/PAGE`), since a browser can only put typed text into the query.
 * Redirects to the address with the typed texts. That address is read like any other, and its page shows what is wrong.
 */
export class FormRoute implements Route {
  get(hosted: HostedApp, path: string, request: Request, response: Response): Promise<StatusMessage | 'answered' | 'not-mine'> {
    const beginning = `${hosted.compiled.mount}/~to/`;
    if (!path.startsWith(beginning)) return Promise.resolve('not-mine');
    const name = path.slice(beginning.length);
    const page = Object.hasOwn(hosted.definition.pages, name) ? own(hosted.definition.pages, name) : undefined;
    if (page === undefined)
      return Promise.resolve(message(hosted, 404, 'There is no such page', ['The page of this form no longer exists.']));
    const query = new URLSearchParams(request.originalUrl.split('?')[1] ?? '');
    const to = formAddress({ action: '', path: hosted.compiled.mount + pathTemplate(page.address) }, [...query]);
    if (to === undefined)
      return Promise.resolve(
        message(
          hosted,
          422,
          'Something is missing',
          ['Go back and fill in all required fields.'],
          valuesAnywhere(hosted, request.originalUrl),
        ),
      );
    response.setHeader('cache-control', 'no-store');
    redirect(response, 303, to);
    return Promise.resolve('answered');
  }
}
