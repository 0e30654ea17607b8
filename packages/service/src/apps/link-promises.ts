import {
  checkAppFile,
  compareDraft,
  DraftDocument,
  FormerPages,
  needsConsent,
  pageVersions,
  rehearse,
  shortMark,
  type AddressesInUse,
  type AppDefinition,
  type CompiledApp,
  type Finding,
  type FormerReading,
  type PageVersion,
  type PromisedPage,
  type RepairableFinding,
  type Seals,
} from '@pallmist/app';
import { randomBytes } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import type { WallClock } from '../clock.ts';
import { timestamp } from '../clock.ts';
import { mayHoldSealed, type Sealer } from '../seals/sealer.ts';
import type { ConsentRow, LinkStore, PrintedRow } from '../store/links.ts';
import type { ShortAddress } from '../store/short-addresses.ts';
import type { Store, Stores } from '../store/store.ts';
import type { HostedApp } from './hosted-app.ts';

/** A builder's word that a finding is meant. */
export interface Consent {
  finding: string;
  why?: string | undefined;
}

/** Findings of a draft that may not be published as it is. */
export interface Rehearsed {
  findings: Finding[];
  /** Those that need a repair or a consent and have neither. */
  open: Finding[];
}

/** What is known of an app with its newest edition. */
interface Known {
  edition: number;
  /** Every version of a page that was ever published. */
  versions: PromisedPage[];
  /** Promises that builders gave up. */
  withdrawn: ReadonlySet<string>;
  former?: FormerPages;
}

/** What the addresses of published editions promise: kept at each publishing, and compared with drafts. */
export class LinkPromises {
  readonly #store: Store;
  readonly #sealer: Sealer;
  readonly #clock: WallClock;
  readonly #known = new Map<string, Known>();

  constructor(store: Store, sealer: Sealer, clock: WallClock) {
    this.#store = store;
    this.#sealer = sealer;
    this.#clock = clock;
  }

  /** What publishing a draft would change, and what of it nobody has agreed to, or may not agree to since it is printed. */
  async check(draft: { definition: AppDefinition; compiled: CompiledApp }, consents: readonly Consent[]): Promise<Rehearsed> {
    const { app } = draft.definition;
    const { versions, withdrawn } = await this.#gather(app);
    const findings = compareDraft(draft, versions, withdrawn, await this.#inUse(app));
    const agreed = new Set(consents.map(({ finding }) => finding));
    return { findings, open: findings.filter(({ id, fate, printed }) => needsConsent(fate) && (printed.length > 0 || !agreed.has(id))) };
  }

  /** The same with repairs for each finding. */
  async rehearse(draft: { source: string; definition: AppDefinition; compiled: CompiledApp }): Promise<RepairableFinding[]> {
    const { app } = draft.definition;
    const { data } = new DraftDocument(draft.source);
    const { versions, withdrawn } = await this.#gather(app);
    return rehearse({ ...draft, data }, versions, {
      withdrawn,
      inUse: await this.#inUse(app),
      formerly: async (number) => {
        const edition = await this.#store.apps.edition(app, number);
        return edition === undefined ? undefined : checkAppFile(edition.source).definition;
      },
    });
  }

  /** Addresses that are known to be in use: printed ones, and the newest short ones. */
  async #inUse(app: string): Promise<AddressesInUse> {
    const [printed, short] = await Promise.all([this.#store.links.printed(app), this.#store.shortAddresses.list(app)]);
    const holding = printed.filter(({ address }) => mayHoldSealed(address));
    const sealed = await Promise.all(holding.map(({ address }) => this.#sealer.openAll(app, address)));
    // A printed short address follows its page, as any short one does.
    const shortPrinted = await Promise.all(
      printed.map(async ({ address, note }) => {
        const code = codeIn(address);
        const found = code === undefined ? undefined : await this.short(app, code);
        return found === undefined ? [] : [{ ...found, printed: { address, note } }];
      }),
    );
    const codes = new Set(shortPrinted.flat().map(({ code }) => code));
    return { printed, short: [...shortPrinted.flat(), ...short.filter(({ code }) => !codes.has(code))], sealed: sealed.flat() };
  }

  short(app: string, code: string): Promise<ShortAddress | undefined> {
    return this.#store.shortAddresses.find(app, code);
  }

  /** How each earlier version of a page reads an address, the newest first. */
  async trace({ definition: { app }, edition }: HostedApp, address: string, seals: Seals): Promise<FormerReading[]> {
    return [...(await this.#former(app, edition)).readings(address, seals)];
  }

  /** The pages that were ever published, with the editions that had each version. */
  async pages(app: string): Promise<PromisedPage[]> {
    return (await this.#gather(app)).versions;
  }

  printed(app: string): Promise<PrintedRow[]> {
    return this.#store.links.printed(app);
  }

  /** The codes of short addresses that are printed somewhere, each with what it is printed on. */
  async printedCodes(app: string): Promise<ReadonlyMap<string, string>> {
    return new Map(
      (await this.printed(app)).flatMap(({ address, note }) => {
        const code = codeIn(address);
        return code === undefined ? [] : [[code.toLowerCase(), note]];
      }),
    );
  }

  /** Notes that an address is printed somewhere. */
  async addPrinted(app: string, address: string, note: string, by: string): Promise<void> {
    await this.#store.links.addPrinted({ id: randomBytes(6).toString('hex'), app, address, note, by, at: timestamp(this.#clock) });
  }

  removePrinted(app: string, id: string): Promise<boolean> {
    return this.#store.links.removePrinted(app, id);
  }

  consents(app: string): Promise<ConsentRow[]> {
    return this.#store.links.consents(app);
  }

  /** Keeps what a new edition promises, and what was given up with it; part of publishing it. */
  async keep(
    { links }: Pick<Stores, 'links'>,
    definition: AppDefinition,
    edition: number,
    findings: readonly Finding[],
    consents: readonly Consent[],
    by: string,
  ): Promise<void> {
    const { app } = definition;
    await addEdition(links, app, edition, pageVersions(definition));
    const at = timestamp(this.#clock);
    await links.addConsents(
      consents.flatMap(({ finding, why = '' }) => {
        const { promises = [], words = '' } = findings.find(({ id }) => id === finding) ?? {};
        return promises.map((promise) => ({ app, promise, edition, words, by, at, why }));
      }),
    );
    this.#known.delete(app);
  }

  /** Where an address leads that the published edition does not know, as an earlier one read it. */
  async find({ definition, compiled, edition }: HostedApp, address: string, seals: Seals): Promise<ReturnType<FormerPages['find']>> {
    return (await this.#former(definition.app, edition)).find(address, { definition, compiled, seals });
  }

  /** Segments of paths that are literals of some edition. */
  async literals({ definition: { app }, edition }: HostedApp): Promise<ReadonlySet<string>> {
    return (await this.#former(app, edition)).literals;
  }

  async #former(app: string, edition: number): Promise<FormerPages> {
    const known = await this.#gather(app, edition);
    return (known.former ??= new FormerPages(known.versions, known.withdrawn));
  }

  /** @param newest number of the newest edition, where it is known */
  async #gather(app: string, newest?: number): Promise<Known> {
    const known = this.#known.get(app);
    if (newest !== undefined && known?.edition === newest) return known;
    const editions = await this.#store.apps.editionsOf(app);
    const edition = editions[0]?.number ?? 0;
    if (known?.edition === edition) return known;
    await this.#addMissing(
      app,
      editions.map(({ number }) => number),
    );
    const versions = (await this.#store.links.versions(app)).map(({ row: { version }, editions: of }): PromisedPage => ({
      ...(JSON.parse(version) as PageVersion),
      editions: of,
    }));
    const withdrawn = new Set((await this.#store.links.consents(app)).map(({ promise }) => promise));
    const gathered = { edition, versions, withdrawn };
    this.#known.set(app, gathered);
    return gathered;
  }

  /** Editions of before this was kept are read once. */
  async #addMissing(app: string, editions: readonly number[]): Promise<void> {
    const kept = new Set((await this.#store.links.versions(app)).flatMap(({ editions: of }) => of));
    for (const number of editions.filter((one) => !kept.has(one)).toSorted((one, other) => one - other)) {
      const edition = await this.#store.apps.edition(app, number);
      const definition = edition && checkAppFile(edition.source).definition;
      if (definition) await addEdition(this.#store.links, app, number, pageVersions(definition));
      // Visitors do not wait for it.
      await setImmediate();
    }
  }
}

/** The code in a short address, wherever the app stood; undefined for any other address. */
const codeIn = (address: string): string | undefined => /\/~s\/([A-Za-z0-9]{1,20})$/.exec(address)?.[1];

const addEdition = (links: LinkStore, app: string, edition: number, versions: readonly PageVersion[]): Promise<void> =>
  links.addEdition(
    app,
    edition,
    versions.map((version) => ({ mark: shortMark(version.key), page: version.page, version: JSON.stringify(version) })),
  );
