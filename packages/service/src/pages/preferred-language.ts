import { own, writeAddress } from '@pallmist/app';
import type { AppCookies } from '../http/cookies.ts';
import type { ReadRequest } from './steps.ts';

/**
 * Where a visitor is led who arrives without a language in the address, if the app wants that: to the same page in the
 * language that the browser prefers (RFC 9110, Accept-Language). Once for each browser session: a language that the visitor
 * has chosen since stays.
 */
export function preferredLanguage({ hosted, app, name, reading, request, response }: ReadRequest, cookies: AppCookies): string | undefined {
  const { language, languageFromBrowser, choices, parameters } = hosted.definition;
  if (languageFromBrowser !== true || language === undefined) return undefined;
  response.vary('Accept-Language');
  if (cookies.read(hosted, request, 'language') !== undefined) return undefined;
  cookies.set(hosted, response, 'language', 'settled');
  const stated = reading.parameters.some((parameter) => parameter.name === language && parameter.text !== undefined);
  const tags = Object.keys(own(choices, own(parameters, language)?.of ?? '') ?? {});
  const wanted = stated ? undefined : request.acceptsLanguages(tags);
  if (typeof wanted !== 'string' || wanted === own(reading.values, language)) return undefined;
  return writeAddress(app, name, { ...reading.values, [language]: wanted }).address;
}
