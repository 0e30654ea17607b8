import { existsSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { readAssets, type Assets } from '@pallmist/pages/server';
import { StartError } from '../start-error.ts';

const unbuilt = 'The pages and the console are not built. Run bin/demo, or npm run build.';

/** A directory of another package, found as Node finds the package. */
function builtFolder(name: string): string {
  const folder = fileURLToPath(new URL('dist', import.meta.resolve(`@pallmist/${name}/package.json`)));
  if (!existsSync(folder)) throw new StartError(unbuilt);
  return folder;
}

/** Where the built files for browsers lie: those of the hosted pages and those of the console. */
export function browserFiles(): { pages: string; console: string; assets: Assets } {
  const pages = `${builtFolder('pages')}/browser`;
  const manifest = `${pages}/manifest.json`;
  if (!existsSync(manifest)) throw new StartError(unbuilt);
  return {
    pages,
    console: builtFolder('console'),
    assets: readAssets(JSON.parse(readFileSync(manifest, 'utf8')) as Parameters<typeof readAssets>[0]),
  };
}
