import { PallmistError } from '@pallmist/app';
import type { Response } from 'express';

/** An address that would lead a browser to another site. */
export class LeadsAway extends PallmistError {
  readonly code = 'leads-away';
  readonly status = 400;

  constructor() {
    super('The address would lead to another site.');
  }
}

/**
 * Whether a browser that is on this site stays there: the text begins with one “/”. Browsers read “//” and “/\” as the
 * beginning of another host, and skip tabs and line ends anywhere (WHATWG URL, basic URL parser).
 */
export const staysHere = (to: string): boolean => /^\/(?![/\\])[^\p{Cc}]*$/u.test(to);

function refuseToLead(to: string): void {
  if (!staysHere(to)) throw new LeadsAway();
}

/**
 * Redirects to the service’s other origin.
 * @param origin as `Origins` gives it
 * @throws LeadsAway where the path would lead to another site
 */
export function redirectToOrigin(response: Response, origin: string, to: string): void {
  refuseToLead(to);
  response
    .status(303)
    .setHeader('cache-control', 'no-store')
    .location(origin + to)
    .type('text')
    .send('Go on at the address for drafts.\n');
}

/**
 * Redirects. Nothing else writes `Location`.
 * @param to a path of this site, with its query
 * @throws LeadsAway where a browser would leave this site
 */
export function redirect(response: Response, status: 301 | 303, to: string): void {
  refuseToLead(to);
  // What is not ASCII is percent-encoded; what is encoded already stays.
  response.status(status).location(to).type('text').send(`Go to ${to}\n`);
}

/** Whether an answer leads to another address. One to a browser that has the page already (304) does not. */
export const leadsOn = (response: Response): boolean => response.hasHeader('location');
