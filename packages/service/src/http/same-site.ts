import type { Request } from 'express';

/**
 * Whether a request that changes something comes from a page of this very site, as browsers tell it (Fetch Metadata,
 * else the Origin header). A request that tells neither comes from no browser, and has no cookies to be misused.
 * @param own the origin at which the request arrived, as browsers name it
 */
export function isFromThisSite(request: Request, own: string): boolean {
  const site = request.headers['sec-fetch-site'];
  if (typeof site === 'string') return site === 'same-origin' || site === 'none';
  const { origin } = request.headers;
  return origin === undefined || origin === own;
}
