import { own, languageOf, readAddress, SealBook, sentencesIn, withContext, type CompiledApp, type Reading } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Ledger } from '../ledger/ledger.ts';
import type { LinkPromises } from '../apps/link-promises.ts';
import { mayHoldSealed, type Sealer } from '../seals/sealer.ts';
import type { Store } from '../store/store.ts';
import { readingMessage, removedMessage } from './messages.ts';
import { repaired } from './repair.ts';
import { leads, says, type ReadRequest, type Received, type Step } from './steps.ts';
import type { VisitMemory } from './visit.ts';

/** Reads an address; its problems are in the language that the address names. */
function inItsLanguage(hosted: HostedApp, app: CompiledApp, address: string): Reading {
  const reading = readAddress(app, address);
  const sentences = reading.problems.length === 0 ? undefined : sentencesIn(languageOf(hosted.definition, reading.values));
  return sentences === undefined ? reading : readAddress(withContext(app, { sentences }), address);
}

export interface ReadParts {
  sealer: Sealer;
  visit: VisitMemory;
  store: Pick<Store, 'records'>;
  promises: LinkPromises;
  ledger: Ledger;
}

/** Reads the address of a request, once: its page, its values, the sealed ones opened. */
export async function read(received: Received, { sealer, visit, store, promises, ledger }: ReadParts): Promise<Step<ReadRequest>> {
  const { hosted, request, response, as } = received;
  const arrivedBy = as === 'document' ? visit.takeArrival(hosted, request, response) : undefined;
  const address = arrivedBy ?? request.originalUrl;
  // A form sends line ends as CR LF, whatever was typed: a text is the same by either way.
  if (as === 'document' && /%0D%0A/i.test(address)) return leads(303, address.replaceAll(/%0D%0A/gi, '%0A'));
  const book = new SealBook(mayHoldSealed(address) ? await sealer.openAll(hosted.definition.app, address) : []);
  const app = withContext(hosted.compiled, { seals: book });
  const reading = inItsLanguage(hosted, app, address);
  if (as === 'document') {
    const to = await repaired(hosted, app, address, reading, store.records);
    if (to !== undefined) return leads(303, to);
  }
  const name = reading.page ?? '';
  const page = own(hosted.definition.pages, name);
  const compiled = app.pages.get(name);
  if (page === undefined || compiled === undefined) {
    const past = reading.status === 'unknown-page' && !hosted.draft ? await promises.find(hosted, address, book) : undefined;
    if (as === 'document' && reading.status === 'unknown-page' && !hosted.draft)
      ledger.countUnknown(hosted.definition.app, await promises.literals(hosted), request);
    if (past === 'removed') return says(removedMessage(hosted, address));
    return past === undefined ? says(readingMessage(hosted, reading, address)) : leads(301, past.to);
  }
  if (as === 'document' && !hosted.draft && arrivedBy === undefined) ledger.count(hosted.definition.app, compiled, reading, request);
  return { ...received, app, book, reading, name, page, compiled, arrivedBy };
}
