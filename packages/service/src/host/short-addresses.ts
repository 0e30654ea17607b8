import { readAddress } from '@pallmist/core';
import type { Request, Response } from 'express';
import { toBuffer, toString } from 'qrcode';
import type { Store } from '../store/open-store.ts';
import type { HostedApp } from './hosted-app.ts';
import { message, type StatusMessage } from './messages.ts';

/** Longest text that a code still holds and that a telephone still reads from paper, in characters. */
const longestInCode = 1200;

/** Answers an app's short addresses (`~s/CODE`), and draws its addresses as QR codes (`~qr.svg?of=…`, `~qr.png?of=…`). */
export class ShortAddresses {
  readonly #store: Store;
  readonly #base: () => string;

  /** @param base where the public reaches the service */
  constructor(store: Store, base: () => string) {
    this.#store = store;
    this.#base = base;
  }

  /** @returns what to say, or undefined where it has answered; `false` where the request is for something else */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<StatusMessage | false | undefined> {
    const [path = '', query = ''] = request.originalUrl.split('?');
    const rest = path.slice(hosted.compiled.mount.length);
    if (!path.startsWith(hosted.compiled.mount)) return false;
    const code = /^\/~s\/([A-Za-z0-9]{1,20})$/.exec(rest)?.[1];
    if (code !== undefined) return this.#follow(hosted, code, response);
    const kind = /^\/~qr\.(svg|png)$/.exec(rest)?.[1];
    return kind === undefined ? false : this.#draw(hosted, kind as 'svg' | 'png', query, response);
  }

  async #follow(hosted: HostedApp, code: string, response: Response): Promise<StatusMessage | undefined> {
    const address = await this.#store.shortAddresses.find(hosted.definition.app, code);
    if (address === undefined)
      return message(hosted, 404, 'This short address leads nowhere', ['It is mistyped, it has ended, or it was withdrawn.']);
    // Kept by nobody: it may end.
    response.setHeader('cache-control', 'no-store');
    response.redirect(303, hosted.compiled.mount + address);
    return undefined;
  }

  async #draw(hosted: HostedApp, kind: 'svg' | 'png', query: string, response: Response): Promise<StatusMessage | undefined> {
    const of = new URLSearchParams(query).get('of') ?? '';
    // Codes of this app's own addresses only: others could be printed with this site's name on them.
    const own =
      /^\/(?![/\\])/.test(of) && (readAddress(hosted.compiled, of).page !== undefined || of.startsWith(`${hosted.compiled.mount}/~s/`));
    const text = this.#base() + of;
    if (!own) return message(hosted, 404, 'There is no such page', ['A code is drawn for addresses of this app only: ~qr.svg?of=/…']);
    if (text.length > longestInCode)
      return message(hosted, 400, 'The address is too long', ['Make a short address of it first; then it fits into a code.']);
    response.setHeader('cache-control', 'public, max-age=300');
    if (kind === 'svg') {
      response.type('image/svg+xml').send(await toString(text, { type: 'svg', margin: 4, errorCorrectionLevel: 'M' }));
    } else {
      response.type('image/png').send(await toBuffer(text, { type: 'png', margin: 4, scale: 8, errorCorrectionLevel: 'M' }));
    }
    return undefined;
  }
}
