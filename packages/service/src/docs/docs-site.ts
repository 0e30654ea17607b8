import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import express, { Router } from 'express';
import { searchDocs, type DocsPage } from './search-docs.ts';

// The same from the sources and from what was built of them.
const folder = fileURLToPath(new URL('../../dist/docs', import.meta.url));

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** The guides, with search, at `/~/docs`; and the JSON Schema of the app file. @param styles addresses of style sheets */
export function docsSite(styles: readonly string[]): Router {
  // A router, not an application: that would name itself in each answer.
  const site = Router();
  // Made by the build; without one there is nothing to show.
  const file = `${folder}/pages.json`;
  const pages = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as DocsPage[]) : [];
  const byName = new Map(pages.map((page) => [page.name, page]));
  const draw = (title: string, current: string | undefined, main: string, query = '') => {
    const entries = pages.map(
      ({ name, title: words }) =>
        `<li><a href="/~/docs/${name}"${name === current ? ' aria-current="page"' : ''}>${escaped(words)}</a></li>`,
    );
    return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(title)} · Pallmist</title>
${styles.map((style) => `<link rel="stylesheet" href="${escaped(style)}">`).join('')}<link rel="icon" href="/~/assets/icon.svg"></head>
<body class="docs"><a class="skip" href="#content">Skip to the content</a>
<nav aria-label="Guides"><p><b><a href="/~/docs">Guides</a></b></p>
<form role="search" action="/~/docs" method="get"><label>Search the guides<input type="search" name="q" value="${escaped(query)}" maxlength="100"></label> <button>Search</button></form>
<ul>${entries.join('')}<li><a href="/~/api">HTTP interface</a></li></ul></nav>
<main id="content" tabindex="-1">${main}</main></body></html>`;
  };

  site.get('/app-file.schema.json', (_, response) => {
    response.setHeader('cache-control', 'public, max-age=3600').setHeader('access-control-allow-origin', '*');
    response.type('application/schema+json').sendFile(`${folder}/app-file.schema.json`);
  });
  site.use('/screenshots', express.static(`${folder}/screenshots`, { maxAge: '1h', index: false }));
  site.get('/', (request, response) => {
    const query = (new URLSearchParams(request.originalUrl.split('?')[1] ?? '').get('q') ?? '').slice(0, 100);
    const list = pages.map(
      ({ name, title, sections }) =>
        `<section aria-labelledby="of-${name}"><h2 id="of-${name}"><a href="/~/docs/${name}">${escaped(title)}</a></h2><p>${escaped(sections[0]?.text.slice(0, 180) ?? '')}…</p></section>`,
    );
    response
      .type('html')
      .send(
        query.trim() === ''
          ? draw('Guides', undefined, `<h1>Guides</h1>${list.join('')}`)
          : draw(`“${query}” in the guides`, undefined, found(pages, query), query),
      );
  });
  site.get('/:name', (request, response, next) => {
    const page = byName.get(request.params.name);
    if (page === undefined) {
      next();
      return;
    }
    const index = pages.indexOf(page);
    const way = (to: DocsPage | undefined, rel: 'prev' | 'next', words: string) =>
      to === undefined ? '' : `<a rel="${rel}" href="/~/docs/${to.name}">${words}: ${escaped(to.title)}</a>`;
    const ways = `<nav class="ways" aria-label="More guides">${way(pages[index - 1], 'prev', 'Previous')} ${way(pages[index + 1], 'next', 'Next')}</nav>`;
    response.type('html').send(draw(page.title, page.name, page.html + ways));
  });
  site.use((_, response) => {
    const page = draw('No such guide', undefined, '<h1>There is no such guide</h1><p>Search for it, or choose one from the list.</p>');
    response.status(404).type('html').send(page);
  });
  return site;
}

function found(pages: readonly DocsPage[], query: string): string {
  const results = searchDocs(pages, query);
  const entries = results.map(
    ({ page, id, title, snippet }) =>
      `<li><a href="/~/docs/${page.name}#${id}">${escaped(title)}</a> <small>in ${escaped(page.title)}</small><br>${escaped(snippet)}</li>`,
  );
  return `<h1>“${escaped(query)}” in the guides</h1><p role="status">${String(results.length)} ${results.length === 1 ? 'place' : 'places'} found.</p><ol class="found">${entries.join('')}</ol>`;
}
