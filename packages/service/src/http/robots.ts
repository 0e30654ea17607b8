import type { RequestHandler } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';

/** Whether an app at “/” has a page of this address itself. */
const isPage = ({ definition: { mount, pages } }: HostedApp) =>
  mount === '/' && Object.values(pages).some(({ address }) => address === '/robots.txt');

/** What search engines are told (RFC 9309): to leave out what is Pallmist's own, and where each app's sitemap is. */
export const robots =
  (apps: () => readonly HostedApp[], base: () => string): RequestHandler =>
  (_, response, next) => {
    if (apps().some(isPage)) {
      next();
      return;
    }
    const sitemaps = apps().map(({ compiled }) => `Sitemap: ${base()}${compiled.mount}/~sitemap.xml\n`);
    response.type('text').send(`User-agent: *\nDisallow: /~/\n${sitemaps.join('')}`);
  };
