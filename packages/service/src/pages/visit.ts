import { writePlainText, own, valueFrom, type CompiledApp, type ParameterValue, type Reading, type Values } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { VisitStore } from '../store/visits.ts';

const mostCharacters = 3000;

/** What a browser remembers of its visit: the values that came with the address of arrival, and what acts once. */
export class VisitMemory {
  readonly #cookies: AppCookies;
  readonly #counts: VisitStore;

  constructor(cookies: AppCookies, counts: VisitStore) {
    this.#cookies = cookies;
    this.#counts = counts;
  }

  /** The values remembered for the visit. They come from a cookie, so each is read again. */
  remembered(hosted: HostedApp, request: Request): Values {
    const kept = decoded(this.#cookies.read(hosted, request, 'visit'));
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
      ([name, value]) => page?.byName.get(name)?.remembered === true && value !== undefined && own(before, name) === undefined,
    );
    if (given.length === 0) return before;
    const visit = { ...Object.fromEntries(given), ...before };
    this.#set(response, hosted, 'visit', encoded(visitTexts(hosted, visit)));
    // To count is no part of showing the page: on a full disk the page is shown all the same.
    if (!hosted.draft)
      await this.#counts.came(hosted.definition.app, visitTexts(hosted, Object.fromEntries(given))).catch((error: unknown) => {
        request.log.error({ err: error }, 'a visit was not counted');
      });
    return visit;
  }

  /** Keeps the address of arrival for the page that `to` is redirected to. */
  keepArrival(hosted: HostedApp, to: string, full: string, response: Response): void {
    this.#set(response, hosted, 'once', encoded({ to, full }));
  }

  /** The address of arrival if this request is the page that it was redirected to; only once. */
  takeArrival(hosted: HostedApp, request: Request, response: Response): string | undefined {
    const text = this.#cookies.read(hosted, request, 'once');
    if (text === undefined) return undefined;
    this.#cookies.clear(hosted, response, 'once');
    const { to, full } = decoded(text);
    return to === request.originalUrl ? full : undefined;
  }

  /** For the time that the browser is open. */
  #set(response: Response, hosted: HostedApp, kind: 'visit' | 'once', value: string): void {
    if (value.length <= mostCharacters) this.#cookies.set(hosted, response, kind, value);
  }
}

/** The values of a visit as texts, by parameter. */
export function visitTexts({ compiled }: HostedApp, visit: Values): Record<string, string> {
  const [page] = compiled.pages.values();
  const texts = Object.entries(visit).flatMap(([name, value]) => {
    const parameter = page?.byName.get(name);
    // As a person writes it, not as it is encoded in an address: it is read again, shown and counted.
    const text = parameter === undefined ? undefined : writePlainText(parameter.plain, value);
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
