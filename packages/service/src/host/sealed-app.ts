import { compileApp, SealBook, type AppDefinition, type CompiledApp } from '@pallmist/core';
import type { Sealer } from '../seals/sealer.ts';

/** What one request knows of sealed values: those that its address holds, and those that its answer needs. */
export interface OpenedApp {
  compiled: CompiledApp;
  book: SealBook;
}

/** How long values of a parameter are valid, in days; undefined for ever. */
export function validDays({ pages, parameters = {} }: AppDefinition, page: string, parameter: string): number | undefined {
  const sealed = (pages[page]?.parameters?.[parameter] ?? parameters[parameter])?.sealed;
  return typeof sealed === 'object' ? sealed.days : undefined;
}

/** Prepares an app’s addresses for one request, with the sealed values of its address opened. */
export async function openApp(definition: AppDefinition, sealer: Sealer, address: string): Promise<OpenedApp> {
  const book = new SealBook(await sealer.openAll(definition.app, address));
  return { book, compiled: compileApp(definition, { seals: book }).app };
}
