import { own, decodeForShow, probablePage, readAddress, writeAddress, type FormerReading } from '@pallmist/app';
import type { Links, Traced } from '@pallmist/api';
import type { LinkPromises } from '../apps/link-promises.ts';
import type { HostedApp } from '../apps/hosted-app.ts';
import { openedFor } from '../apps/sealed-values.ts';
import { shortPath } from '../pages/short-addresses.ts';
import type { ServiceParts } from '../service-parts.ts';
import type { Sealer } from '../seals/sealer.ts';
import { Refused } from './problem-details.ts';

/** What the addresses of an app promise. */
export async function linksOf({ promises, ledger, live }: Pick<ServiceParts, 'promises' | 'ledger' | 'live'>, app: string): Promise<Links> {
  const [pages, printed, consents] = await Promise.all([promises.pages(app), promises.printed(app), promises.consents(app)]);
  const [seen, tried] = [await ledger.lately(app, 90), await ledger.tried(app)];
  const hosted = live.byName(app);
  return {
    tried: tried.flatMap(({ path, tries, days, day }) => {
      // An address that works by now is left out.
      if (hosted !== undefined && readAddress(hosted.compiled, path).status !== 'unknown-page') return [];
      const meant = hosted && probablePage(path, hosted.definition, hosted.compiled);
      return [{ path, tries, days, day, ...(meant === undefined ? {} : { meant }) }];
    }),
    pages: pages
      .map(({ page, app: { mount, pages: of }, editions }) => ({
        page,
        address: (mount === '/' ? '' : mount) + (own(of, page)?.address ?? ''),
        editions: [...editions],
      }))
      .sort((one, other) => one.page.localeCompare(other.page) || (other.editions.at(-1) ?? 0) - (one.editions.at(-1) ?? 0)),
    printed: printed.map(({ id, address, note, by, at }) => ({ id, address, note, by, at })),
    consents: consents.map(({ edition, words, by, at, why }) => ({ edition, words, by, at, why })),
    seen: seen.map(({ app: _, ...row }) => row),
  };
}

/** How each edition reads an address, and where it leads today. */
export async function trace(hosted: HostedApp, promises: LinkPromises, sealer: Sealer, given: string): Promise<Traced> {
  const address = pathOf(given);
  const { compiled, book } = await openedFor(hosted, sealer, address);
  const reading = readAddress(compiled, address);
  const { status, page, problems, former, values } = reading;
  const past = status === 'unknown-page' ? await promises.find(hosted, address, book) : undefined;
  const written = status === 'found' && former ? writeAddress(compiled, page ?? '', values).address : undefined;
  const leadsTo = written ?? (typeof past === 'object' ? past.to : undefined);
  return {
    today: { status, problems, ...(page === undefined ? {} : { page }), ...(leadsTo === undefined ? {} : { leadsTo }) },
    earlier: (await promises.trace(hosted, address, book)).map(asTold),
  };
}

function asTold({ version: { page, editions }, compiled, reading }: FormerReading): Traced['earlier'][number] {
  const declared = compiled.pages.get(page);
  return {
    editions: [...editions],
    page,
    values: reading.parameters.flatMap(({ name, value, origin }) => {
      const parameter = declared?.byName.get(name);
      // The text of a sealed value is for nobody to read.
      const text = value === undefined || parameter?.sealed === true ? undefined : parameter?.plain.write(value);
      return text === undefined ? [] : [{ name, text: decodeForShow(text), origin }];
    }),
  };
}

/** Notes a printed address. @throws Refused where the published app does not take it */
export async function addPrinted(
  hosted: HostedApp,
  promises: LinkPromises,
  sealer: Sealer,
  { address: given, note }: { address: string; note: string },
  by: string,
): Promise<void> {
  const address = pathOf(given);
  const { code } = shortPath(hosted, address) ?? {};
  if (code !== undefined) {
    const short = await promises.short(hosted.definition.app, code);
    if (short === undefined) throw new Refused(422, 'There is no such short address.');
    if (short.endsAt !== null)
      throw new Refused(422, `This short address ends on ${short.endsAt.slice(0, 10)}. Make one that lasts, and print that.`);
    await promises.addPrinted(hosted.definition.app, address, note, by);
    return;
  }
  const { compiled } = await openedFor(hosted, sealer, address);
  const { status, problems } = readAddress(compiled, address);
  const wrong = problems.filter(({ severity }) => severity !== 'note');
  if (status !== 'found' || wrong.length > 0)
    throw new Refused(422, 'The published app does not take this address as it stands, so it should not be printed.', wrong);
  await promises.addPrinted(hosted.definition.app, address, note, by);
}

/** Path and query of an address that may be a whole URL. */
const pathOf = (given: string): string =>
  given
    .trim()
    .replace(/^https?:\/\/[^/?#]*/, '')
    .replace(/#.*$/s, '') || '/';
