import { randomBytes } from 'node:crypto';
import { componentsIn, staysOnSite } from '@pallmist/core';
import type { Request, Response } from 'express';
import type { Sealer } from '../seals/sealer.ts';
import type { Settings } from '../settings.ts';
import type { ShortAddressRow } from '../store/entities/index.ts';
import type { Store } from '../store/open-store.ts';
import { hashToken } from '../store/sessions.ts';
import { AttemptLimit } from './attempt-limit.ts';
import { appCookiePlace, cookieNames, readCookie, setCookie } from './cookies.ts';
import type { HostedApp } from './hosted-app.ts';
import { message, type StatusMessage } from './messages.ts';
import { openApp } from './sealed-app.ts';
import { shareable } from './shareable.ts';

const defaultDays = 90;
const year = 365 * 24 * 60 * 60 * 1000;

/** Answers an app's short addresses: `~s/CODE` leads on, `~s/CODE/about` says where to, a form sent to `~s` makes one. */
export class ShortAddresses {
  readonly #store: Store;
  readonly #settings: Settings;
  readonly #sealer: Sealer;
  readonly #base: () => string;
  readonly #limit = new AttemptLimit({ window: 10 * 60 * 1000, most: 30 });

  /** @param base where the public reaches the service */
  constructor(store: Store, settings: Settings, sealer: Sealer, base: () => string) {
    this.#store = store;
    this.#settings = settings;
    this.#sealer = sealer;
    this.#base = base;
  }

  /** @returns what to say, or undefined where it has answered; `false` where the request is for something else */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<StatusMessage | false | undefined> {
    const wanted = this.#wanted(hosted, request);
    if (wanted?.code === undefined) return false;
    const row = await this.#store.shortAddresses.row(hosted.definition.app, wanted.code);
    if (row === undefined)
      return message(hosted, 404, 'This short address leads nowhere', ['It is mistyped, it has ended, or it was withdrawn.']);
    // Kept by nobody: it may end.
    response.setHeader('cache-control', 'no-store');
    if (wanted.about) return this.#about(hosted, row, request);
    response.redirect(303, hosted.compiled.mount + row.address);
    return undefined;
  }

  /** A form that makes or withdraws a short address. @returns as `answer` does */
  async take(hosted: HostedApp, request: Request, response: Response): Promise<StatusMessage | false | undefined> {
    const wanted = this.#wanted(hosted, request);
    if (wanted === undefined || wanted.about) return false;
    if (wanted.code === undefined) return this.#make(hosted, request, response);
    const maker = this.#maker(request);
    const withdrawn =
      request.form.texts['~withdraw'] === 'yes' &&
      maker !== undefined &&
      (await this.#store.shortAddresses.withdraw(hosted.definition.app, wanted.code.toLowerCase(), maker));
    return withdrawn
      ? message(hosted, 200, 'It is withdrawn', ['The short address leads nowhere from now on.'])
      : message(hosted, 403, 'It cannot be withdrawn from here', [
          'Only the browser that has made it, or the owner of the app, may do so.',
        ]);
  }

  async #make(hosted: HostedApp, request: Request, response: Response): Promise<StatusMessage | undefined> {
    const { definition } = hosted;
    const of = request.form.texts['of'] ?? '';
    const { compiled } = await openApp(definition, this.#sealer, of);
    const shared = shareable(compiled, of);
    const days = 'page' in shared ? daysOn(hosted, shared.page) : undefined;
    if ('problems' in shared || days === undefined || !staysOnSite(of))
      return message(hosted, 422, 'No short address was made', ['There is none for this address: no page of the app offers it there.']);
    const tooMany = await this.#limit.isReached(request, response);
    const token = readCookie(request, cookieNames.shortMaker) ?? randomBytes(16).toString('base64url');
    const row = tooMany ? undefined : await this.#store.shortAddresses.makeFor(hashToken(token), definition.app, shared.address, days);
    if (row === undefined)
      return message(hosted, 429, 'Too many at once', [
        'So many short addresses were made that we cannot keep up. Please try again later.',
      ]);
    setCookie(response, cookieNames.shortMaker, token, year, appCookiePlace(hosted, this.#settings));
    const about = `${hosted.compiled.mount}/~s/${row.code}/about`;
    if (request.headers.accept === 'application/json') response.json({ short: this.#whole(hosted, row), about, until: until(row) });
    else response.redirect(303, about);
    return undefined;
  }

  /** What a short address is, to read and to print. */
  #about(hosted: HostedApp, row: ShortAddressRow, request: Request): StatusMessage {
    const { mount } = hosted.compiled;
    const short = this.#whole(hosted, row);
    const about = message(hosted, 200, short.replace(/^https?:\/\//, ''), [
      `It leads to ${this.#base()}${mount}${row.address}`,
      row.endsAt === null ? 'It lasts.' : `It leads there until ${until(row)}.`,
    ]);
    about.message.ways.unshift({ text: 'Go there', href: mount + row.address });
    about.message.picture = {
      source: `${mount}/~qr.svg?of=${encodeURIComponent(`${mount}/~s/${row.code}`)}`,
      alternative: 'The short address as a QR code',
    };
    if (row.maker !== null && row.maker === this.#maker(request))
      about.message.action = { to: `${mount}/~s/${row.code}`, name: '~withdraw', value: 'yes', button: 'Withdraw it' };
    return about;
  }

  #whole = (hosted: HostedApp, { code }: ShortAddressRow) => `${this.#base()}${hosted.compiled.mount}/~s/${code}`;

  #maker(request: Request): string | undefined {
    const token = readCookie(request, cookieNames.shortMaker);
    return token === undefined ? undefined : hashToken(token);
  }

  #wanted(hosted: HostedApp, request: Request): { code?: string; about: boolean } | undefined {
    const [path = ''] = request.originalUrl.split('?');
    const { mount } = hosted.compiled;
    const [, code, about] = (path.startsWith(mount) && /^\/~s(?:\/([A-Za-z0-9]{1,20})(\/about)?)?$/.exec(path.slice(mount.length))) || [];
    if (path === `${mount}/~s`) return { about: false };
    return code === undefined ? undefined : { code, about: about !== undefined };
  }
}

const until = ({ endsAt }: ShortAddressRow) => endsAt?.slice(0, 10);

/** For how many days a page makes short addresses of itself; undefined where it does not. */
function daysOn({ definition }: HostedApp, page: string): number | undefined {
  for (const component of componentsIn(definition.pages[page]?.content ?? []))
    if (component.show === 'share' && component.short !== undefined) return component.short === true ? defaultDays : component.short.days;
  return undefined;
}
