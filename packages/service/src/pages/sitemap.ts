import { own, writeAddress, type CompiledPage } from '@pallmist/app';
import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Store } from '../store/store.ts';
import { recordSpace } from './load-data.ts';
import type { Route } from './route.ts';

/** Most records of a collection whose pages are listed; a sitemap holds 50,000 addresses (sitemaps.org). */
const mostRecords = 5000;
const batch = 500;

/** Answers for the list of an app's open pages (`~sitemap.xml`), by which search engines find them. */
export class SitemapRoute implements Route {
  readonly #store: Store;
  readonly #base: () => string;

  /** @param base where the public reaches the service */
  constructor(store: Store, base: () => string) {
    this.#store = store;
    this.#base = base;
  }

  async get(hosted: HostedApp, path: string, _: Request, response: Response): ReturnType<Route['get']> {
    if (path !== `${hosted.compiled.mount}/~sitemap.xml` || hosted.draft) return 'not-mine';
    const addresses: string[] = [];
    for (const page of hosted.compiled.pages.values()) if (isOpen(hosted, page)) addresses.push(...(await this.#addressesOf(hosted, page)));
    const entries = addresses.map((address) => `<url><loc>${escapeXml(this.#base() + address)}</loc></url>`).join('');
    response.setHeader('cache-control', 'public, max-age=3600');
    response
      .type('xml')
      .send(`<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${entries}</urlset>`);
    return 'answered';
  }

  /** The page itself; where it needs a record alone, the page of each record. */
  async #addressesOf(hosted: HostedApp, page: CompiledPage): Promise<string[]> {
    const needed = page.parameters.filter(({ required }) => required);
    const [only] = needed;
    const write = (values: Record<string, string>) => writeAddress(hosted.compiled, page.name, values).address;
    if (only === undefined) return defined([write({})]);
    const { type, of = '', by } = only.declaration;
    if (needed.length > 1 || type !== 'record' || only.sealed) return [];
    const { collections = {} } = hosted.definition;
    const field = by ?? own(collections, of)?.keyField ?? '';
    const found: string[] = [];
    for (let number = 1; number * batch <= mostRecords; number++) {
      const read = { from: of, where: [], sort: [{ field, descending: false }], page: number, size: batch, nothing: false };
      const { rows, total } = await this.#store.records.read(recordSpace(this.#store, hosted), collections, read, { [field]: {} });
      found.push(...defined(rows.map(({ [field]: key }) => (typeof key === 'string' ? write({ [only.name]: key }) : undefined))));
      if (number * batch >= total) break;
    }
    return found;
  }
}

/** Pages that everyone may see, search engines too. */
function isOpen({ definition }: HostedApp, { name }: CompiledPage): boolean {
  const page = own(definition.pages, name);
  return (page?.admit ?? 'everyone') === 'everyone' && page?.robots?.includes('noindex') !== true && definition.signIn?.page !== name;
}

const defined = (addresses: readonly (string | undefined)[]) => addresses.filter((address) => address !== undefined);

const escapeXml = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
