import { renderMessage, type Assets } from '@pallmist/pages/server';
import type { Response } from 'express';
import type { StatusMessage } from './messages.ts';
import { withOnce } from './show.ts';
import { pageDataType, type AskedAs, type Elsewhere, type Received } from './steps.ts';

/** Sends a page that was shown. */
export function answerPage({ response }: Received, as: AskedAs, body: string, status = 200): void {
  response
    .status(status)
    .type(as === 'document' ? 'html' : pageDataType)
    .send(withOnce(body));
}

/** Leads on, or says what there is instead of the page. */
export function answerElsewhere({ response }: Pick<Received, 'response'>, elsewhere: Elsewhere, assets: Assets): void {
  if ('say' in elsewhere) answerMessage(response, elsewhere.say, assets);
  else response.redirect(elsewhere.redirect.status, elsewhere.redirect.to);
}

/** A page that says something. */
export function answerMessage(response: Response, { status, message }: StatusMessage, assets: Assets): void {
  response.status(status).type('html').send(renderMessage(message, assets));
}

/** What came of a form, told to the browser that draws the page itself. */
export type FormOutcome = { saved: string } | { document: string };

/** Tells what came of a form: to a script as data, to anything else by a redirect. */
export function answerForm({ request, response }: Received, outcome: FormOutcome): void {
  if (request.headers.accept === pageDataType) response.type(pageDataType).send(JSON.stringify(outcome));
  else response.redirect(303, 'saved' in outcome ? outcome.saved : outcome.document);
}
