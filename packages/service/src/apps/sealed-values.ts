import { own, SealBook, withContext, type AppDefinition, type CompiledApp } from '@pallmist/app';
import { mayHoldSealed, type Sealer } from '../seals/sealer.ts';
import type { HostedApp } from './hosted-app.ts';

/** How long values of a parameter are valid, in days; undefined for ever. */
export function validDays({ pages, parameters = {} }: AppDefinition, page: string, parameter: string): number | undefined {
  const sealed = (own(own(pages, page)?.parameters, parameter) ?? own(parameters, parameter))?.sealed;
  return typeof sealed === 'object' ? sealed.days : undefined;
}

/** An app for calls that know the sealed values of an address, and note what has to be sealed. */
export async function openedFor(
  { definition, compiled }: HostedApp,
  sealer: Sealer,
  address: string,
): Promise<{ compiled: CompiledApp; book: SealBook }> {
  const book = new SealBook(mayHoldSealed(address) ? await sealer.openAll(definition.app, address) : []);
  return { book, compiled: withContext(compiled, { seals: book }) };
}
