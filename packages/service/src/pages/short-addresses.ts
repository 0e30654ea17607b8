import { randomBytes } from 'node:crypto';
import { own, readAddress, staysOnSite, walkContent } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { openedFor } from '../apps/sealed-values.ts';
import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import type { AppCookies } from '../http/cookies.ts';
import type { Sealer } from '../seals/sealer.ts';
import type { ShortAddress, ShortTarget } from '../store/short-addresses.ts';
import type { Store } from '../store/store.ts';
import { hashToken } from '../store/tokens.ts';
import type { FormBody } from './form-body.ts';
import { fillBook } from './load.ts';
import { message, sayFor, valuesAnywhere, type Sentence, type StatusMessage } from './messages.ts';
import type { Route } from './route.ts';
import { addressOf, shareable } from './shareable.ts';
import { redirect } from '../http/location.ts';

const year = 365 * 24 * 60 * 60 * 1000;

/** What a path of an app asks of short addresses: to lead on, to tell about one, or, with a form, to make or withdraw one. */
export interface ShortPath {
  /** Missing where one is to be made. */
  code?: string;
  about: boolean;
}

/** @param path of the request; undefined where it is none of a short address */
export function shortPath({ compiled: { mount } }: HostedApp, path: string): ShortPath | undefined {
  if (path === `${mount}/~s`) return { about: false };
  const [, code, about] = (path.startsWith(`${mount}/~s/`) && /^\/~s\/([A-Za-z0-9]{1,20})(\/about)?$/.exec(path.slice(mount.length))) || [];
  return code === undefined ? undefined : { code, about: about !== undefined };
}

/** Where a short address leads today, with its values sealed that have to be; undefined where there is no such page any more. */
export async function targetAddress(hosted: HostedApp, sealer: Sealer, target: ShortTarget): Promise<string | undefined> {
  const { compiled, book } = await openedFor(hosted, sealer, '');
  const address = addressOf(compiled, target);
  return (await fillBook(hosted, book, sealer)) ? addressOf(compiled, target) : address;
}

/** Answers an app's short addresses: `~s/CODE` leads on, `~s/CODE/about` says where to, a form sent to `~s` makes one. */
export class ShortAddresses implements Route {
  readonly #store: Store;
  readonly #cookies: AppCookies;
  readonly #sealer: Sealer;
  readonly #base: () => string;
  readonly #limit: AttemptLimit;

  /** @param base where the public reaches the service */
  constructor(store: Store, cookies: AppCookies, sealer: Sealer, base: () => string, clock: Clock) {
    this.#store = store;
    this.#cookies = cookies;
    this.#sealer = sealer;
    this.#base = base;
    this.#limit = new AttemptLimit({ window: 10 * 60 * 1000, most: 30 }, clock.steady);
  }

  async get(hosted: HostedApp, path: string, request: Request, response: Response): ReturnType<Route['get']> {
    const { code, about } = shortPath(hosted, path) ?? {};
    if (code === undefined) return 'not-mine';
    const short = await this.#store.shortAddresses.find(hosted.definition.app, code);
    if (short === undefined) return message(hosted, 404, 'This short address does not work', ['It may be mistyped, expired or withdrawn.']);
    // Kept by nobody: it may end.
    response.setHeader('cache-control', 'no-store');
    const to = await targetAddress(hosted, this.#sealer, short);
    if (about === true) return this.#about(hosted, short, to, request);
    if (to === undefined)
      return message(hosted, 410, 'This short address no longer works', ['The page it was created for is no longer part of the app.']);
    redirect(response, 303, to);
    return 'answered';
  }

  /** A form that makes or withdraws a short address. @returns what to say, or undefined where it has answered */
  async take(
    hosted: HostedApp,
    { code }: ShortPath,
    { texts }: FormBody,
    request: Request,
    response: Response,
  ): Promise<StatusMessage | undefined> {
    if (code === undefined) return this.#make(hosted, texts['of'] ?? '', request, response);
    const maker = this.#maker(hosted, request);
    const withdrawn =
      texts['~withdraw'] === 'yes' &&
      maker !== undefined &&
      (await this.#store.shortAddresses.withdraw(hosted.definition.app, code, maker));
    return withdrawn
      ? message(hosted, 200, 'Short address withdrawn', ['The short address no longer works.'])
      : message(hosted, 403, 'It cannot be withdrawn from here', [
          'Only the browser that created it, or the owner of the app, can withdraw it.',
        ]);
  }

  async #make(hosted: HostedApp, of: string, request: Request, response: Response): Promise<StatusMessage | undefined> {
    const { compiled } = await openedFor(hosted, this.#sealer, of);
    const shared = shareable(compiled, of);
    const days = 'page' in shared ? daysOn(hosted, shared.page) : undefined;
    if ('problems' in shared || days === undefined || !staysOnSite(of))
      return message(
        hosted,
        422,
        'No short address was created',
        ['The page at this address does not offer short addresses.'],
        valuesAnywhere(hosted, of),
      );
    const { shortAddresses } = this.#store;
    const token = this.#cookies.read(hosted, request, 'short') ?? randomBytes(16).toString('base64url');
    const short = this.#limit.isReachedBy(request, response)
      ? undefined
      : await shortAddresses.makeFor(hashToken(token), hosted.definition.app, hosted.edition, shared, days);
    if (short === undefined)
      return message(hosted, 429, 'Too many at once', ['Too many short addresses were created. Please try again later.']);
    this.#cookies.set(hosted, response, 'short', token, year);
    const about = `${hosted.compiled.mount}/~s/${short.code}/about`;
    if (request.headers.accept === 'application/json') response.json({ short: this.#whole(hosted, short), about, until: until(short) });
    else redirect(response, 303, about);
    return undefined;
  }

  /** What a short address is, to read and to print. */
  #about(hosted: HostedApp, short: ShortAddress, to: string | undefined, request: Request): StatusMessage {
    const { mount } = hosted.compiled;
    const whole = this.#whole(hosted, short);
    // Who made it shared a page in its language; it is that of who reads about it.
    const values = to === undefined ? {} : readAddress(hosted.compiled, to).values;
    const say = sayFor(hosted, values);
    const sentences: Sentence[] = [
      to === undefined ? 'The page it was created for is no longer part of the app.' : { said: say('It leads to {0}', this.#base() + to) },
      short.endsAt === null ? 'It does not expire.' : { said: say('It leads there until {0}.', until(short) ?? '') },
    ];
    const about = message(hosted, 200, { said: whole.replace(/^https?:\/\//, '') }, sentences, values);
    if (to !== undefined) about.message.ways.unshift({ text: say('Go there'), href: to });
    about.message.picture = {
      source: `${mount}/~qr.svg?of=${encodeURIComponent(`${mount}/~s/${short.code}`)}`,
      alternative: say('The short address as a QR code'),
    };
    if (short.maker !== null && short.maker === this.#maker(hosted, request))
      about.message.action = { to: `${mount}/~s/${short.code}`, name: '~withdraw', value: 'yes', button: say('Withdraw it') };
    return about;
  }

  #whole = (hosted: HostedApp, { code }: ShortAddress) => `${this.#base()}${hosted.compiled.mount}/~s/${code}`;

  #maker(hosted: HostedApp, request: Request): string | undefined {
    const token = this.#cookies.read(hosted, request, 'short');
    return token === undefined ? undefined : hashToken(token);
  }
}

const until = ({ endsAt }: ShortAddress) => endsAt?.slice(0, 10);

/** For how many days a page makes short addresses of itself; undefined where it does not. */
function daysOn({ definition }: HostedApp, page: string): number | undefined {
  const content = walkContent(own(definition.pages, page)?.content ?? []);
  return [...content].map(({ references }) => references.shortAddressDays).find((days) => days !== undefined);
}
