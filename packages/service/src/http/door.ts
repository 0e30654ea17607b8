import type { IncomingMessage } from 'node:http';
import { PallmistError } from '@pallmist/app';
import { headLimits } from './limits.ts';

/** A request that is refused for its head alone, with the HTTP status that says so. */
export class RefusedHead extends PallmistError {
  readonly code = 'head-refused';
  readonly status: 400 | 414 | 431;

  constructor(status: 400 | 414 | 431, message: string) {
    super(message);
    this.status = status;
  }
}

/** Whether a sign stands in a text more often than that. */
function hasMore(text: string, sign: string, most: number): boolean {
  let at = -1;
  for (let count = 0; count <= most; count++) if ((at = text.indexOf(sign, at + 1)) === -1) return false;
  return true;
}

/** Looks at a request's head before any route does. @returns why it is refused; undefined for one within the limits */
export function refusedHead({ url = '', rawHeaders }: Pick<IncomingMessage, 'url' | 'rawHeaders'>): RefusedHead | undefined {
  if (url.length > headLimits.address)
    return new RefusedHead(414, `The address is longer than ${headLimits.address.toLocaleString('en')} characters. Shorten it.`);
  if (hasMore(url, '&', headLimits.pairs))
    return new RefusedHead(414, `The address has more than ${headLimits.pairs.toLocaleString('en')} parameters. Shorten it.`);
  const size = rawHeaders.reduce((sum, text) => sum + text.length, 0);
  if (size > headLimits.fields || rawHeaders.length > 2 * headLimits.count)
    return new RefusedHead(
      431,
      `The header fields of the request are larger than ${headLimits.fields.toLocaleString('en')} characters, or more than ${String(headLimits.count)}. Clear the cookies of this site, then try again.`,
    );
  return undefined;
}
