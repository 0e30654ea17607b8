import type { PageMaterial } from '@pallmist/core/view';

/** The files that a browser loads beside a page, as paths. */
export interface Assets {
  script: string;
  styles: string[];
  /** What a page loads too whose expressions need the CEL engine. */
  cel: string[];
}

interface ManifestEntry {
  file: string;
  css?: string[];
  imports?: string[];
  isEntry?: boolean;
  isDynamicEntry?: boolean;
}

/** Reads the names of the built files from Vite’s manifest. */
export function readAssets(manifest: Record<string, ManifestEntry>, base = '/-/assets/'): Assets {
  const entries = Object.values(manifest);
  const entry = entries.find((candidate) => candidate.isEntry === true);
  if (entry === undefined) throw new Error('The hosted pages are not built.');
  return {
    script: base + entry.file,
    styles: (entry.css ?? []).map((file) => base + file),
    cel: entries.filter((candidate) => candidate.isDynamicEntry === true).map((candidate) => base + candidate.file),
  };
}

interface DocumentParts {
  title: string;
  body: string;
  assets: Assets;
  material?: PageMaterial;
  canonical?: string;
  /** BCP 47 tag. */
  language?: string;
}

/** Puts a document together. Nothing in it is inline script: the material is data, which a content security policy lets be. */
export function assembleDocument({ title, body, assets, material, canonical, language = 'en' }: DocumentParts): string {
  const links = [
    '<link rel="icon" href="/-/assets/icon.svg">',
    ...assets.styles.map((href) => `<link rel="stylesheet" href="${escape(href)}">`),
    ...(canonical === undefined ? [] : [`<link rel="canonical" href="${escape(canonical)}">`]),
    ...(material?.cel === true ? assets.cel.map((href) => `<link rel="modulepreload" href="${escape(href)}">`) : []),
  ].join('');
  const takeover =
    material === undefined
      ? ''
      : `<script type="application/json" id="material">${JSON.stringify(material).replaceAll('<', '\\u003c')}</script>` +
        `<script type="module" src="${escape(assets.script)}"></script>`;
  return (
    `<!doctype html><html lang="${escape(language)}"><head><meta charset="utf-8">` +
    '<meta name="viewport" content="width=device-width, initial-scale=1">' +
    `<title>${escape(title)}</title>${links}</head><body><div id="page">${body}</div>${takeover}</body></html>`
  );
}

const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
