import type { Values } from '@pallmist/address/declare';
import { type CompiledApp, readAddress, type Reading, writeAddress } from '@pallmist/address/pages';
import { decodeText, encode } from '@pallmist/address/types';
import { reasons, type Reason } from './pass.ts';

/** Pallmist’s own names in the address of the sign-in page. */
export const ownNames = { wanted: '~wanted', why: '~why', enter: '~enter' } as const;

/** The sign-in page’s address, which remembers where the visitor wanted to go and says why they have to sign in, where they did not choose to. */
export function signInAddress(
  app: CompiledApp,
  signInPage: string,
  wanted: string | undefined,
  why: Reason | undefined,
  present: Values = {},
): string {
  const page = writeAddress(app, signInPage, {}, { present }).address ?? app.mount + '/';
  const own = [
    ...(wanted === undefined ? [] : [`${ownNames.wanted}=${encode(wanted)}`]),
    ...(why === undefined ? [] : [`${ownNames.why}=${why}`]),
  ];
  return own.length === 0 ? page : `${page}${page.includes('?') ? '&' : '?'}${own.join('&')}`;
}

/** The address in a mail that lets a person in: the sign-in page, which shows a button. Pressing it opens the app. */
export function enterAddress(app: CompiledApp, signInPage: string, token: string): string {
  const page = writeAddress(app, signInPage, {}).address ?? app.mount + '/';
  return `${page}${page.includes('?') ? '&' : '?'}${ownNames.enter}=${encode(token)}`;
}

/** One of Pallmist’s own values in an address, decoded; the first where there are several. */
export function ownValue(reading: Reading, name: string): string | undefined {
  const entry = reading.undeclared.find((candidate) => decodeText(candidate.name) === name);
  return entry && decodeText(entry.text);
}

/** The reason that an address carries, if it is one of ours: never text from the address. */
export function reasonIn(reading: Reading): Reason | undefined {
  const why = ownValue(reading, ownNames.why);
  return reasons.find((reason) => reason === why);
}

/** Whether an address names a path on this very site: “//host” and “/\\host” name another. */
export const staysOnSite = (address: string): boolean => /^\/(?![/\\])/.test(address);

/**
 * Decides whether a wanted address is followed after sign-in: only a path on this very site that reads as a page of
 * this app other than the sign-in page.
 * @param back text from the address or a form, hence from a stranger
 * @returns the address to go to, written as the WHATWG URL parser has it; undefined for anything else
 */
export function followBack(app: CompiledApp, signInPage: string, back: string | undefined): string | undefined {
  if (back === undefined || !staysOnSite(back)) return undefined;
  // eslint-disable-next-line no-control-regex -- browsers drop these and would see another address than we do
  if (/[\u0000-\u0020\u007f\\]/.test(back)) return undefined;
  const site = 'http://site.invalid';
  let url: URL;
  try {
    url = new URL(back, site);
  } catch {
    return undefined;
  }
  const path = url.pathname + url.search + url.hash;
  if (url.origin !== site || path.startsWith('//')) return undefined;
  const reading = readAddress(app, path);
  if (reading.page === undefined || reading.page === signInPage) return undefined;
  return path;
}
