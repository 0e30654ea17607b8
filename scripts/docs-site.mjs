// Makes what the service shows at /~/docs of the guides in docs/: a fragment of HTML for each, with its headings for the search.
import { cpSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { Marked } from 'marked';
import ts from 'typescript';

const root = new URL('../', import.meta.url);
const folder = new URL('packages/service/dist/docs/', root);

/** The guides in the order in which people need them; any other one comes last. */
const order = [
  ...[
    'first-steps',
    'first-app',
    'console',
    'app-file',
    'parameters',
    'components',
    'expressions',
    'app-recipes',
    'links-that-last',
    'mistakes',
    'problems',
    'limits',
    'glossary',
  ],
  ...['front-end', 'recipes', 'live', 'library', 'command', 'http', 'security', 'architecture', 'performance'],
];
const place = (name) => (order.includes(name) ? order.indexOf(name) : order.length);

const slug = (text) =>
  text
    .toLowerCase()
    .replaceAll(/<[^>]*>|[^\p{L}\p{N} _-]/gu, '')
    .trim()
    .replaceAll(' ', '-');
const plain = (html) =>
  html
    .replaceAll(/<[^>]*>/g, ' ')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&quot;', '"')
    .replaceAll('&#39;', '’')
    .replaceAll('&amp;', '&')
    .replaceAll(/\s+/g, ' ')
    .trim();

/** The small pictures of components that the console shows where one is added. */
const { componentPictures } = await import(
  `data:text/javascript,${encodeURIComponent(
    ts.transpileModule(readFileSync(new URL('packages/console/src/content/component-pictures.ts', root), 'utf8'), {
      compilerOptions: { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 },
    }).outputText,
  )}`
);
/** The picture that belongs under a heading such as “Table: `table`”. */
function pictureUnder(heading) {
  const marks = componentPictures[/<code>([\w-]+)<\/code>$/.exec(heading)?.[1] ?? ''];
  if (marks === undefined) return '';
  const shapes = marks.map(
    ([x, y, width, height, tone = 'soft']) =>
      `<rect class="${tone}" x="${String(x)}" y="${String(y)}" width="${String(width)}" height="${String(height)}" rx="1"/>`,
  );
  return `<svg class="picture" viewBox="0 0 48 30" width="144" height="90" aria-hidden="true">${shapes.join('')}</svg>\n`;
}

const names = readdirSync(new URL('docs/', root))
  .filter((file) => file.endsWith('.md'))
  .map((file) => file.slice(0, -3))
  .sort((one, other) => place(one) - place(other) || one.localeCompare(other));

const pages = names.map((name) => {
  const text = readFileSync(new URL(`docs/${name}.md`, root), 'utf8').replaceAll(/<!--[^]*?-->/g, '');
  const taken = new Map();
  const marked = new Marked({
    renderer: {
      heading({ tokens, depth }) {
        const html = this.parser.parseInline(tokens);
        const base = slug(plain(html));
        const count = taken.get(base) ?? 0;
        taken.set(base, count + 1);
        const id = count === 0 ? base : `${base}-${String(count)}`;
        const picture = name === 'components' && depth === 2 ? pictureUnder(html) : '';
        return `<h${String(depth)} id="${id}"><a href="#${id}">${html}</a></h${String(depth)}>\n${picture}`;
      },
      link({ href, tokens }) {
        // What lies beside the guides is not here.
        if (href.startsWith('../')) return `<code>${this.parser.parseInline(tokens)}</code>`;
        const to = href.replace(/^([\w-]+)\.md/, '/~/docs/$1').replace(/^app-file\.schema\.json$/, '/~/docs/app-file.schema.json');
        return `<a href="${to}">${this.parser.parseInline(tokens)}</a>`;
      },
      image({ href, text: alt }) {
        return `<img src="/~/docs/${href}" alt="${alt}" loading="lazy">`;
      },
      table({ header, rows }) {
        const cell = (tag, { tokens }) => `<${tag}>${this.parser.parseInline(tokens)}</${tag}>`;
        const line = (tag, cells) => `<tr>${cells.map((one) => cell(tag, one)).join('')}</tr>`;
        return `<div class="scroll" tabindex="0" role="region" aria-label="Table"><table><thead>${line('th', header)}</thead><tbody>${rows.map((cells) => line('td', cells)).join('')}</tbody></table></div>`;
      },
      code({ text: source }) {
        const escaped = source.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
        return `<pre tabindex="0"><code>${escaped}</code></pre>\n`;
      },
    },
  });
  const html = marked.parse(text);
  const parts = html.split(/(?=<h[1-3] id=")/);
  const sections = parts.flatMap((part) => {
    const [, id, title] = /^<h[1-3] id="([^"]*)"><a[^>]*>(.*?)<\/a>/.exec(part) ?? [];
    return id === undefined ? [] : [{ id, title: plain(title), text: plain(part.replace(/^<h.*?<\/h\d>/, '')) }];
  });
  return { name, title: sections[0]?.title ?? name, html, sections };
});

mkdirSync(folder, { recursive: true });
writeFileSync(new URL('pages.json', folder), JSON.stringify(pages));
cpSync(new URL('docs/screenshots/', root), new URL('screenshots/', folder), { recursive: true });
cpSync(new URL('docs/app-file.schema.json', root), new URL('app-file.schema.json', folder));
