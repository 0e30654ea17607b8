import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { declareInSource } from '@pallmist/app';
import { CommandError, exit } from './exit.ts';

type Pages = Parameters<typeof declareInSource>[1];

/**
 * The pages that a module of JavaScript or TypeScript exports: those of its export `pages`, by their names there, as
 * `pallmist types` writes them; else every export that is a page, by its own name.
 * @throws CommandError where it cannot be loaded, or exports no page
 */
export async function pagesIn(file: string): Promise<Pages> {
  const exported = await load(file);
  const { pages } = exported;
  const found = Object.fromEntries(Object.entries(isMap(pages) && !isPage(pages) ? pages : exported).filter(([, value]) => isPage(value)));
  if (Object.keys(found).length > 0) return found as Pages;
  throw new CommandError(
    exit.usage,
    `${file} exports no page. Export what page() of @pallmist/address gives: export const beds = page('/beds{?q}', …).`,
  );
}

async function load(file: string): Promise<Record<string, unknown>> {
  const path = resolve(file);
  if (!existsSync(path)) throw new CommandError(exit.usage, `${file} cannot be loaded: there is no such file.`);
  try {
    if (!/\.[cm]?ts$/.test(file)) return (await import(pathToFileURL(path).href)) as Record<string, unknown>;
    const { createJiti } = await import('jiti');
    return await createJiti(pathToFileURL(path).href, { fsCache: false }).import(path);
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new CommandError(exit.usage, `${file} cannot be loaded: ${reason.replace(/\s*\nRequire stack[^]*/, '').replaceAll(/\s+/g, ' ')}`);
  }
}

const isMap = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null;

/** Whether a value is a page: it may be of another copy of the library than ours. */
const isPage = (value: unknown): boolean => isMap(value) && Array.isArray(value['slots']) && value['byName'] instanceof Map;
