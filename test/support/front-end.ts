import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { svelte } from '@sveltejs/vite-plugin-svelte';
import { chromium, type Browser, type LaunchOptions } from 'playwright-core';
import { build, type Rollup } from 'vite';
import { patiently } from './chromium.ts';

const root = fileURLToPath(new URL('../../', import.meta.url));
const options = JSON.parse(readFileSync(`${root}scripts/chromium.json`, 'utf8')) as LaunchOptions;

/** Chromium as visitors have it: with its limit on changes of the history, which test drivers switch off. */
export async function launchStrictChromium(): Promise<Browser> {
  const executablePath = process.env['PALLMIST_CHROMIUM'];
  const browser = await chromium.launch({
    ...options,
    ...(executablePath === undefined ? {} : { executablePath }),
    ignoreDefaultArgs: ['--disable-ipc-flooding-protection', '--disable-back-forward-cache'],
  });
  return patiently(browser);
}

/** Bundles a program as Vite does for an application, with the sources of our packages. @param extension of its language */
export async function bundled(code: string, extension: 'ts' | 'svelte' = 'ts'): Promise<string> {
  const entry = `${root}test/front-end/entry.ts`;
  const component = `${root}test/front-end/Entry.svelte`;
  const files: Record<string, string> =
    extension === 'ts'
      ? { [entry]: code }
      : {
          [entry]: `import { mount } from 'svelte'; import Entry from ${JSON.stringify(component)}; mount(Entry, { target: document.body });`,
          [component]: code,
        };
  const result = (await build({
    root,
    configFile: false,
    logLevel: 'silent',
    resolve: { conditions: ['source', 'module', 'browser', 'production'] },
    plugins: [
      {
        name: 'program',
        enforce: 'pre',
        resolveId: (id) => (id in files ? id : undefined),
        load: (id) => files[id],
      },
      ...(extension === 'svelte' ? [svelte({ configFile: false })] : []),
    ],
    build: { write: false, target: 'es2023', rolldownOptions: { input: entry, output: { entryFileNames: 'main.js' } } },
  })) as Rollup.RollupOutput;
  const chunk = result.output.find((one) => one.type === 'chunk');
  if (chunk?.type !== 'chunk') throw new Error('nothing was built');
  return chunk.code;
}

/** Serves pages on loopback: `/NAME/anything` is the page of that name, its program inline. */
export async function servePages(pages: Record<string, { html: string; script: string }>): Promise<{ base: string; server: Server }> {
  const server = createServer((request, response) => {
    const [, name = ''] = /^\/([^/?#]*)/.exec(request.url ?? '') ?? [];
    const found = pages[decodeURIComponent(name)];
    response.setHeader('content-type', 'text/html; charset=utf-8');
    response.statusCode = found === undefined ? 404 : 200;
    response.end(
      found === undefined
        ? '<p>nothing here'
        : `<!doctype html><html lang="en"><title>${name}</title><body>${found.html}<script type="module">${found.script.replaceAll('</script', '<\\/script')}</script></body></html>`,
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { base: `http://127.0.0.1:${String((server.address() as AddressInfo).port)}`, server };
}
