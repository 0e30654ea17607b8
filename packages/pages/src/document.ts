import { directionOf, type PagePayload } from '@pallmist/app/view';
import { payloadJson } from './payload-json.ts';
import { partsFor, type Part } from './parts.ts';

/** The files that a browser loads beside a page, as paths. */
export interface Assets {
  script: string;
  /** What the script itself begins with. */
  imports: string[];
  styles: string[];
  /** What only some pages load, by part. */
  parts: Partial<Record<Part, string[]>>;
}

interface ManifestEntry {
  file: string;
  imports?: string[];
  isEntry?: boolean;
}

/** Reads the names of the built files from Vite’s manifest. */
export function readAssets(manifest: Record<string, ManifestEntry>, base = '/~/assets/'): Assets {
  const entries = Object.values(manifest);
  const entry = entries.find((candidate) => candidate.isEntry === true);
  if (entry === undefined) throw new Error('The hosted pages are not built.');
  const withImports = (key: string, seen = new Set<string>()): Set<string> => {
    const candidate = manifest[key];
    if (candidate === undefined || seen.has(candidate.file)) return seen;
    if (candidate !== entry) seen.add(candidate.file);
    for (const inner of candidate.imports ?? []) withImports(inner, seen);
    return seen;
  };
  const imports = new Set((entry.imports ?? []).flatMap((key) => [...withImports(key)]));
  const parts: Assets['parts'] = {};
  for (const [part, source] of Object.entries(sources)) {
    const key = Object.keys(manifest).find((candidate) => candidate.endsWith(source));
    if (key === undefined) throw new Error(`The hosted pages are built without ${source}.`);
    parts[part as Part] = [...withImports(key)].filter((file) => !imports.has(file)).map((file) => base + file);
  }
  return {
    script: base + entry.file,
    imports: [...imports].map((file) => base + file),
    styles: entries.flatMap(({ file }) => (file.endsWith('.css') ? [base + file] : [])),
    parts,
  };
}

/** Where each part begins, as the manifest names it. */
const sources: Record<Part, string> = {
  cel: 'expressions/cel.js',
  packed: 'types/packed.js',
  forms: 'components/form-components.ts',
  lazy: 'components/lazy-components.ts',
  phrases: 'languages/phrases.js',
};

interface DocumentParts {
  title: string;
  /** What components put into the head. */
  head?: string;
  body: string;
  assets: Assets;
  payload?: PagePayload;
  /** The whole address. */
  canonical?: string;
  description?: string | undefined;
  robots?: string | undefined;
  /** What its address is shown with where it is shared (Open Graph). */
  share?: { title: string; site: string };
  /** The same page in each language that the app has: tags and addresses. */
  languages?: readonly { tag: string; href: string }[];
  /** BCP 47 tag. */
  language?: string;
}

/** Puts a document together. Nothing in it is inline script: the payload is data, which a content security policy lets be. */
export function assembleDocument({
  title,
  head = '',
  body,
  assets,
  payload,
  canonical,
  languages = [],
  description,
  robots,
  share,
  language = 'en',
}: DocumentParts): string {
  // Named at once, so that the browser does not learn of one script by another.
  const needed = payload ? [...assets.imports, ...[...partsFor(payload)].flatMap((part) => assets.parts[part] ?? [])] : [];
  const links = [
    '<link rel="icon" href="/~/assets/icon.svg">',
    ...assets.styles.map((href) => `<link rel="stylesheet" href="${escape(href)}">`),
    ...(canonical === undefined ? [] : [`<link rel="canonical" href="${escape(canonical)}">`]),
    ...meta('name', 'description', description),
    ...meta('name', 'robots', robots),
    ...meta('property', 'og:title', share?.title),
    ...meta('property', 'og:url', share && canonical),
    ...meta('property', 'og:site_name', share?.site),
    ...meta('property', 'og:description', share && description),
    ...meta('property', 'og:type', share && 'website'),
    ...languages.map(({ tag, href }) => `<link rel="alternate" hreflang="${escape(tag)}" href="${escape(href)}">`),
    ...needed.map((href) => `<link rel="modulepreload" href="${escape(href)}">`),
  ].join('');
  const takeover =
    payload === undefined
      ? ''
      : `<script type="application/json" id="payload">${payloadJson(payload)}</script>` +
        `<script type="module" src="${escape(assets.script)}"></script>`;
  return (
    `<!doctype html><html lang="${escape(language)}" dir="${directionOf(language)}"><head><meta charset="utf-8">` +
    '<meta name="viewport" content="width=device-width, initial-scale=1">' +
    `<title>${escape(title)}</title>${links}${head}</head><body><div id="page">${body}</div>${takeover}</body></html>`
  );
}

const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

const meta = (kind: 'name' | 'property', name: string, content: string | undefined): string[] =>
  content === undefined || content === '' ? [] : [`<meta ${kind}="${name}" content="${escape(content)}">`];
