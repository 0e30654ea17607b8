import type { Request } from 'express';

/**
 * Whether a request that changes something comes from a page of this very site, as browsers tell it (Fetch Metadata,
 * else the Origin header). A request that tells neither comes from no browser, and has no cookies to be misused.
 */
export function isFromThisSite(request: Request, publicUrl: string | undefined): boolean {
  const site = request.headers['sec-fetch-site'];
  if (typeof site === 'string') return site === 'same-origin' || site === 'none';
  const { origin, host } = request.headers;
  if (origin === undefined) return true;
  const own = publicUrl === undefined ? `http://${host ?? ''}` : new URL(publicUrl).origin;
  return origin === own;
}
