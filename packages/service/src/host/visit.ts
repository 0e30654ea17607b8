import { valueFrom, type CompiledApp, type ParameterValue, type Reading, type Values } from '@pallmist/core';
import type { Request, Response } from 'express';
import type { ArrivalStore } from '../store/arrivals.ts';
import type { Settings } from '../settings.ts';
import { appCookiePlace, clearCookie, readCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';

/** What is remembered until the browser is closed, as texts. */
const visitCookie = 'pallmist_visit';
/** The address of arrival with what acts once, from the redirect to the page that it leads to. */
const onceCookie = 'pallmist_once';
const mostCharacters = 3000;

/** What a browser remembers of its visit: the values that came with the address of arrival, and what acts once. */
export class VisitMemory {
  readonly #settings: Settings;

  readonly #arrivals: ArrivalStore;

  constructor(settings: Settings, arrivals: ArrivalStore) {
    this.#settings = settings;
    this.#arrivals = arrivals;
  }

  /** The values remembered for the visit. They come from a cookie, so each is read anew. */
  remembered(hosted: HostedApp, request: Request): Values {
    const kept = decoded(readCookie(request, visitCookie));
    return Object.fromEntries(
      Object.entries(kept).flatMap(([name, text]) => {
        const value = rememberedValue(hosted.compiled, name, text);
        return value === undefined ? [] : [[name, value] as const];
      }),
    );
  }

  /** Remembers what an address gives for the visit; what came first stays. @returns all that is remembered now */
  async remember(hosted: HostedApp, reading: Reading, request: Request, response: Response): Promise<Values> {
    const before = this.remembered(hosted, request);
    const page = hosted.compiled.pages.get(reading.page ?? '');
    const given = Object.entries(reading.values).filter(
      ([name, value]) => page?.byName.get(name)?.remembered === true && value !== undefined && before[name] === undefined,
    );
    if (given.length === 0) return before;
    const visit = { ...Object.fromEntries(given), ...before };
    this.#set(response, hosted, visitCookie, encoded(visitTexts(hosted, visit)));
    if (!hosted.draft) await this.#arrivals.arrived(hosted.definition.app, visitTexts(hosted, Object.fromEntries(given)));
    return visit;
  }

  /** Keeps the address of arrival for the page that `to` is redirected to. */
  keepArrival(hosted: HostedApp, to: string, full: string, response: Response): void {
    this.#set(response, hosted, onceCookie, encoded({ to, full }));
  }

  /** The address of arrival if this request is the page that it was redirected to; only once. */
  takeArrival(hosted: HostedApp, request: Request, response: Response): string | undefined {
    const text = readCookie(request, onceCookie);
    if (text === undefined) return undefined;
    clearCookie(response, onceCookie, appCookiePlace(hosted, this.#settings));
    const { to, full } = decoded(text);
    return to === request.originalUrl ? full : undefined;
  }

  /** For the time that the browser is open. */
  #set(response: Response, hosted: HostedApp, name: string, value: string): void {
    if (value.length <= mostCharacters) response.cookie(name, value, { httpOnly: true, ...appCookiePlace(hosted, this.#settings) });
  }
}

/** The values of a visit as texts, by parameter. */
export function visitTexts({ compiled }: HostedApp, visit: Values): Record<string, string> {
  const [page] = compiled.pages.values();
  const texts = Object.entries(visit).flatMap(([name, value]) => {
    const text = page?.byName.get(name)?.plain.write(value);
    return typeof text === 'string' ? [[name, text] as const] : [];
  });
  return Object.fromEntries(texts);
}

function rememberedValue(app: CompiledApp, name: string, text: string): ParameterValue | undefined {
  for (const page of app.pages.values()) {
    const parameter = page.byName.get(name);
    if (parameter?.remembered !== true) return undefined;
    const value = valueFrom(text, parameter.plain);
    return typeof parameter.plain.write(value) === 'string' ? (value as ParameterValue) : undefined;
  }
  return undefined;
}

const encoded = (texts: Record<string, string>) => Buffer.from(JSON.stringify(texts)).toString('base64url');

function decoded(cookie: string | undefined): Record<string, string> {
  if (cookie === undefined) return {};
  try {
    const parsed: unknown = JSON.parse(Buffer.from(cookie, 'base64url').toString('utf8'));
    if (typeof parsed !== 'object' || parsed === null) return {};
    return Object.fromEntries(Object.entries(parsed).filter((entry): entry is [string, string] => typeof entry[1] === 'string'));
  } catch {
    return {};
  }
}
