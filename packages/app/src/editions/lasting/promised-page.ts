import type { Difference } from './judge.ts';
import type { AppDefinition } from '../../definition/app-definition.ts';
import { pageVersions, type PageVersion } from './page-version.ts';

/** A page version with the editions that had it, and what of it was withdrawn with consent. */
export interface PromisedPage extends PageVersion {
  /** Numbers of editions, the oldest first. */
  editions: readonly number[];
}

/** A difference between an earlier version of a page and the draft, with an address that shows it. */
export interface Found extends Difference {
  version: PromisedPage;
  /** An address that was valid, and does not mean the same any more. */
  witness: string;
}

/** The versions of the pages of some editions, each once. @param editions the oldest first */
export function promisedPages(editions: Iterable<{ number: number; definition: AppDefinition }>): PromisedPage[] {
  const versions = new Map<string, PromisedPage>();
  for (const { number, definition } of editions)
    for (const version of pageVersions(definition))
      versions.set(version.key, { ...version, editions: [...(versions.get(version.key)?.editions ?? []), number] });
  return [...versions.values()];
}
