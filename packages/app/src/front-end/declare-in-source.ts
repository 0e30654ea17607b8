import type { Page } from '@pallmist/address';
import { checkAppFile } from '../definition/check/check-app.ts';
import { DraftDocument } from '../definition/patch.ts';
import type { CheckedApp } from '../definition/check/check-definition.ts';
import { comparePatch } from '../editing/compare-data.ts';
import type { AppDefinition } from '../definition/app-definition.ts';
import { pagesFromCode, type PagesFromCode } from './pages-from-code.ts';

/** An app file with pages as code declares them. */
export interface DeclaredInSource extends Omit<PagesFromCode, 'definition'> {
  /** Its text: what did not change is written as it was. */
  source: string;
  /** What the check says of it. */
  checked: CheckedApp;
}

/**
 * Puts the addresses and parameters of pages that were declared in code into the text of an app file: see `pagesFromCode`.
 * @returns undefined where the file does not have the form of an app file
 */
export function declareInSource(source: string, pages: Readonly<Record<string, Page<string, unknown>>>): DeclaredInSource | undefined {
  if (checkAppFile(source).definition === undefined) return undefined;
  const document = new DraftDocument(source);
  const { definition, ...told } = pagesFromCode(document.data as AppDefinition, pages);
  const patch = comparePatch(document.data, definition);
  if (patch.length > 0) document.apply(patch);
  return { ...told, source: document.text, checked: checkAppFile(document.text) };
}
