import { renderMessage, renderPage, type Assets } from '@pallmist/pages/server';
import type { Request, Response } from 'express';
import type { Sealer } from '../seals/sealer.ts';
import type { Settings } from '../settings.ts';
import type { Store } from '../store/open-store.ts';
import { sendFile, wantedFile } from './files.ts';
import type { HostedApp } from './hosted-app.ts';
import { recordsOf } from './load.ts';
import { message, type StatusMessage } from './messages.ts';
import { PageCache } from './page-cache.ts';
import { Preparer, tools, type Elsewhere } from './prepare.ts';

/** The media type by which the browser asks for a page’s material instead of its document. */
export const materialType = 'application/vnd.pallmist.material+json';

/** Answers requests for pages: read, gate, load, show. */
export class PageHost {
  readonly #store: Store;
  readonly #assets: Assets;
  readonly #preparer: Preparer;
  readonly #cache = new PageCache();

  constructor(store: Store, settings: Settings, sealer: Sealer, assets: Assets) {
    this.#store = store;
    this.#assets = assets;
    this.#preparer = new Preparer(store, settings, sealer);
  }

  get preparer(): Preparer {
    return this.#preparer;
  }

  /** Answers GET and HEAD for any address in an app. */
  async answer(hosted: HostedApp, request: Request, response: Response): Promise<void> {
    const file = wantedFile(hosted, request.originalUrl.split('?')[0] ?? '');
    if (file !== undefined) {
      if (!(await sendFile(this.#store, hosted, file, response)))
        this.say(response, message(hosted, 404, 'There is no such file', ['It may have been renamed or taken away.']));
      return;
    }
    const forMaterial = request.headers.accept === materialType;
    response.setHeader('cache-control', 'private, no-cache');
    response.vary('Accept');
    response.vary('Cookie');
    const kind = forMaterial ? 'material' : 'document';
    const admitted = await this.#preparer.admit(hosted, request, response, kind);
    if (!('page' in admitted)) {
      this.#lead(response, admitted);
      return;
    }
    const dataVersion = this.#store.writer.version(recordsOf(this.#store, hosted));
    const key = admitted.repeats ? PageCache.keyOf(kind, request.originalUrl, admitted) : undefined;
    let body = key === undefined ? undefined : this.#cache.find(hosted, dataVersion, key);
    if (body === undefined) {
      const loaded = await this.#preparer.load(hosted, admitted, request);
      if (!('page' in loaded)) {
        this.#lead(response, loaded);
        return;
      }
      body = forMaterial ? JSON.stringify(loaded.material) : renderPage(loaded.material, tools, this.#assets);
      if (key !== undefined) this.#cache.keep(hosted, dataVersion, key, body);
    }
    response.type(forMaterial ? materialType : 'html').send(body);
  }

  #lead(response: Response, elsewhere: Elsewhere): void {
    if ('say' in elsewhere) this.say(response, elsewhere.say);
    else response.redirect(elsewhere.redirect.status, elsewhere.redirect.to);
  }

  /** Answers with a page that says what went wrong. */
  say(response: Response, { status, message: page }: StatusMessage): void {
    response.status(status).type('html').send(renderMessage(page, this.#assets));
  }
}
