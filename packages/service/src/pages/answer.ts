import { renderMessage, type Assets } from '@pallmist/pages/server';
import type { Response } from 'express';
import type { KeptPage } from './kept-page.ts';
import type { StatusMessage } from './messages.ts';
import { withOnce } from './show.ts';
import { pageDataType, type AskedAs, type PageOutcome, type Received } from './steps.ts';
import { redirect } from '../http/location.ts';

/** The result of a form: the address to open now that it is saved, or a document to load instead. */
type FormOutcome = { saved: string; said?: string } | { document: string };

/** The answer to a request for a page: the page, a redirect, or a page with a message; for a form, its result. */
export type Answer = { body: string | KeptPage; as: AskedAs; status?: number } | PageOutcome | FormOutcome;

/** Sends an answer. */
export async function answer({ request, response }: Pick<Received, 'request' | 'response'>, given: Answer, assets: Assets): Promise<void> {
  if ('body' in given) {
    const { body, status = 200, as } = given;
    response.status(status).type(as === 'document' ? 'html' : pageDataType);
    if (typeof body === 'string') response.send(withOnce(body));
    else await body.send(request, response);
  } else if ('say' in given) answerMessage(response, given.say, assets);
  else if ('redirect' in given) redirect(response, given.redirect.status, given.redirect.to);
  // What came of a form is told to a script as data, to anything else by a redirect.
  else if (request.headers.accept === pageDataType) response.type(pageDataType).send(JSON.stringify(given));
  else redirect(response, 303, 'saved' in given ? given.saved : given.document);
}

/** A page that says something. */
export function answerMessage(response: Response, { status, message }: StatusMessage, assets: Assets): void {
  response.status(status).type('html').send(renderMessage(message, assets));
}
