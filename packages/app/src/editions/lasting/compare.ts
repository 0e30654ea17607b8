import { compileApp } from '../../compile-with-all-types.ts';
import type { AppDefinition, PageDefinition } from '../../definition/app-definition.ts';
import { withContext, type ParameterDeclaration } from '@pallmist/address/declare';
import { writeAddress, type CompiledApp, type Seals } from '@pallmist/address/pages';
import { judge, type Difference, type FormerReader, type Reader } from './judge.ts';
import type { ShortInUse } from './addresses-in-use.ts';
import type { FormerPages } from './former-pages.ts';
import type { Found, PromisedPage } from './promised-page.ts';
import { knownResult } from './known-results.ts';
import { openSeals } from './open-seals.ts';
import { pageVersion, templatesOf, type PageVersion } from './page-version.ts';
import type { TemplateIndex } from './template-index.ts';
import { shortMark } from '../../short-mark.ts';
import { sameDeclarations } from './same-declarations.ts';
import { triedValues, witnessAddresses } from './witness-addresses.ts';

/** Two days, so that a date relative to today is not the same as a fixed one. */
const days = ['2026-11-19', '2031-02-27'];

/** What would become of an address of a version of a page. */
export interface DifferenceOf {
  version: PromisedPage;
  difference: Difference;
}

/** Compares a draft with versions of its pages that were published. */
export class Comparison {
  readonly #definition: AppDefinition;
  readonly #now: Reader;
  readonly #days: readonly { now: Reader; today: string }[];
  readonly #todays = new Map<string, PageVersion>();
  readonly #templates: TemplateIndex;
  /** Mark of the addresses of all pages. */
  readonly #addresses: string;

  /** @param compiled the draft’s addresses */
  constructor(definition: AppDefinition, compiled: CompiledApp) {
    this.#definition = definition;
    this.#days = days.map((today) => ({
      today,
      now: { definition, compiled: withContext(compiled, { seals: openSeals, today: () => today }) },
    }));
    this.#now = (this.#days[0] as { now: Reader }).now;
    this.#templates = templatesOf(definition);
    const { mount, formerMounts, gone, pages } = definition;
    const addresses = Object.entries(pages).map(([name, { address, formerAddresses, formerNames }]) => [
      name,
      address,
      formerAddresses,
      formerNames,
    ]);
    this.#addresses = shortMark(JSON.stringify([mount, formerMounts, gone, addresses]));
  }

  /** All differences; versions that are as today’s pages cost next to nothing. */
  of(versions: readonly PromisedPage[]): Found[] {
    return versions.flatMap((version) => this.#ofVersion(version));
  }

  /** What would become of one address, by the newest version of a page that took it. @param seals that open what it holds */
  ofAddress(address: string, former: FormerPages, seals: Seals = openSeals): DifferenceOf[] {
    for (const { version, compiled } of former.readings(address, seals)) return this.#ofOne(version, compiled, address, seals);
    return [];
  }

  /** What would become of a short address. It names its page and its values, so it follows them wherever they stand. */
  ofShort({ edition, page, values }: ShortInUse, former: FormerPages): DifferenceOf[] {
    const made = former.pageIn(edition, page);
    if (made === undefined) return [];
    const compiled = withContext(made.compiled, { seals: openSeals });
    const { address } = writeAddress(compiled, page, values, { tellsVisit: true });
    const follows = this.#todaysName(page) !== undefined;
    return (address === undefined ? [] : this.#ofOne(made.version, compiled, address, openSeals)).filter(
      ({ difference: { kind, parameter = '' } }) =>
        kind !== 'other-page' && !(kind === 'no-page' && follows) && !(kind === 'other-default' && values[parameter] !== undefined),
    );
  }

  #ofOne(version: PromisedPage, compiled: CompiledApp, address: string, seals: Seals): DifferenceOf[] {
    const then = { page: version.page, compiled, collections: version.app.collections ?? {} };
    const now = { ...this.#now, compiled: withContext(this.#now.compiled, { seals }) };
    const differences = judge(then, this.#asIfReached(now, version.app.mount), address) ?? [];
    const moved: Difference[] = this.#isReached(version.app.mount) ? [] : [{ fate: 'gone', kind: 'app-moved' }];
    return [...moved, ...differences].map((difference) => ({ version, difference }));
  }

  #ofVersion(version: PromisedPage): readonly Found[] {
    const name = this.#todaysName(version.page);
    const same = name === version.page && this.#versionOf(name).key === version.key;
    const taken = this.#taken(version, name);
    if (same && taken.length === 0) return [];
    const compare = () => this.#compare(version, name, same, taken);
    // If its address has moved, another page may answer it now, and the result depends on that page too.
    const stays = name !== undefined && this.#definition.pages[name]?.address === version.app.pages[version.page]?.address;
    return stays ? knownResult(version, this.#versionOf(name).key, this.#addresses, compare) : compare();
  }

  #compare(version: PromisedPage, name: string | undefined, same: boolean, taken: readonly string[]): Found[] {
    const { app: compiled } = compileApp(version.app);
    const then = (today: string): FormerReader => ({
      page: version.page,
      compiled: withContext(compiled, { seals: openSeals, today: () => today }),
      collections: version.app.collections ?? {},
    });
    const found = new Map<string, Found>();
    const note = (difference: Difference, witness: string) => {
      const key = `${difference.kind} ${difference.fate} ${difference.parameter ?? ''} ${difference.page ?? ''}`;
      if (!this.#promisesNothing(version, name, difference.parameter) && !found.has(key))
        found.set(key, { ...difference, version, witness });
    };
    if (!this.#isReached(version.app.mount)) note({ fate: 'gone', kind: 'app-moved' }, this.#bare(version, compiled));
    const relative = /"today/.test(version.key) || (name !== undefined && /"today/.test(this.#versionOf(name).key));
    for (const { now, today } of relative ? this.#days : this.#days.slice(0, 1)) {
      const former = then(today);
      for (const witness of this.#witnesses(version, former.compiled, name, same, taken))
        for (const difference of judge(former, this.#asIfReached(now, version.app.mount), witness) ?? []) note(difference, witness);
    }
    for (const difference of declared(
      version,
      name === undefined ? undefined : this.#versionOf(name),
      (page) => this.#todaysName(page),
      this.#now,
    ))
      note(difference, this.#bare(version, then(days[0] as string).compiled));
    return [...found.values()];
  }

  #isReached = (mount: string) => mount === this.#definition.mount || this.#definition.formerMounts?.includes(mount) === true;

  /** That the app has moved is told once; what else an address would lose there is told all the same. */
  #asIfReached(now: Reader, mount: string): Reader {
    if (this.#isReached(mount)) return now;
    const { compiled } = now;
    return { ...now, compiled: { ...compiled, formerMounts: [...compiled.formerMounts, mount === '/' ? '' : mount] } };
  }

  #witnesses(
    version: PromisedPage,
    compiled: CompiledApp,
    name: string | undefined,
    same = false,
    taken: readonly string[] = [],
  ): Iterable<string> {
    const tried = triedValues(
      version.app,
      compiled,
      version.page,
      (parameter) => this.#todaysDeclaration(name, parameter),
      (parameter, value) => this.#unchanged(compiled, version.page, name, parameter, value),
      name === undefined ? new Set() : sameDeclarations(version, this.#versionOf(name)),
    );
    if (tried === undefined) return [];
    const { page, needed } = tried;
    const textOf = (parameter: string) => page.byName.get(parameter)?.plain.write(needed[parameter]) ?? '';
    const filled = taken.map((path) => path.replaceAll(/\{([^{}]*)\}/g, (_, parameter: string) => textOf(parameter)));
    return same ? filled : [...filled, ...witnessAddresses(version.app, compiled, tried)];
  }

  #bare(version: PromisedPage, compiled: CompiledApp): string {
    const [first = version.app.mount] = this.#witnesses(version, compiled, this.#todaysName(version.page));
    return first;
  }

  /** Whether today's parameter of this name reads a value as it is. */
  #unchanged(compiled: CompiledApp, page: string, name: string | undefined, parameter: string, value: unknown): boolean {
    const text = compiled.pages.get(page)?.byName.get(parameter)?.plain.write(value);
    const today = name === undefined ? undefined : this.#now.compiled.pages.get(name)?.byName.get(parameter)?.plain;
    const read = text === undefined ? undefined : today?.read(text, 0, text.length);
    return read !== undefined && today?.write(read) === text;
  }

  /** The name that a page of an earlier edition has today. */
  #todaysName(page: string): string | undefined {
    const { pages } = this.#definition;
    if (Object.hasOwn(pages, page)) return page;
    return Object.keys(pages).find((name) => pages[name]?.formerNames?.includes(page));
  }

  #versionOf(name: string): PageVersion {
    let version = this.#todays.get(name);
    if (version === undefined)
      this.#todays.set(
        name,
        (version = pageVersion(this.#definition, name, this.#definition.pages[name] as PageDefinition, this.#templates)),
      );
    return version;
  }

  /** Addresses of an earlier version that today’s template of another page takes, and no page took then. */
  #taken({ app, page }: PromisedPage, name: string | undefined): string[] {
    const mount = app.mount === '/' ? '' : app.mount;
    const rivals = this.#templates.rivalsOf(app.pages[page]?.address ?? '', name ?? page);
    return rivals.filter((rival) => app.pages[rival.page]?.address !== rival.address).map(({ path }) => mount + path);
  }

  #todaysDeclaration(name: string | undefined, parameter: string): ParameterDeclaration | undefined {
    const page = name === undefined ? undefined : this.#now.compiled.pages.get(name);
    return (page?.byName.get(parameter) ?? page?.parameters.find(({ declaration }) => declaration.formerNames?.includes(parameter)))
      ?.declaration;
  }

  /** Whether addresses promise nothing about a parameter, by what is declared today, or was where it is gone. */
  #promisesNothing({ app, page }: PromisedPage, name: string | undefined, parameter: string | undefined): boolean {
    if (parameter === undefined) return false;
    const today = this.#todaysDeclaration(name, parameter);
    const then = app.pages[page]?.parameters?.[parameter] ?? app.parameters?.[parameter];
    return (today ?? then)?.lasting === false;
  }
}

/** What depends on records, and no reader can tell: ties between them, and where a page leads on to. */
function declared(
  then: PageVersion,
  today: PageVersion | undefined,
  nameToday: (page: string) => string | undefined,
  now: Reader,
): Difference[] {
  if (today === undefined) return [];
  const differences: Difference[] = [];
  const page = now.compiled.pages.get(today.page);
  const target = (page: string) => nameToday(page) ?? page;
  if (leadingOn(then.leadsOn, target) !== leadingOn(today.leadsOn, target)) differences.push({ fate: 'silent', kind: 'leads-elsewhere' });
  for (const [name, declaration] of Object.entries(then.app.pages[then.page]?.parameters ?? {})) {
    const present = page?.byName.get(name);
    const added = Object.keys(present?.declaration.tied ?? {}).filter((field) => declaration.tied?.[field] === undefined);
    if (present !== undefined && added.length > 0)
      differences.push({ fate: present.refuses ? 'refused' : 'noted', kind: 'tied', parameter: name, after: added.join(', ') });
  }
  return differences;
}

/** Where a page leads on to, other pages by the names that they have today. */
function leadingOn(leadsOn: string | undefined, nameToday: (page: string) => string): string | undefined {
  return leadsOn?.replaceAll(/"page":"([^"]*)"/g, (_, page: string) => `"page":"${nameToday(page)}"`);
}
