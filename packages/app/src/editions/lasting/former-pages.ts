import { formerTemplate, parseTemplate, withContext, type Values } from '@pallmist/address/declare';
import {
  PageFinder,
  readAddress,
  writeAddress,
  type CompiledApp,
  type CompiledPage,
  type Reading,
  type Seals,
} from '@pallmist/address/pages';
import { compileApp } from '../../compile-with-all-types.ts';
import type { AppDefinition } from '../../definition/app-definition.ts';
import type { PromisedPage } from './promised-page.ts';
import { withdrawnMarks } from './promise-marks.ts';

/** Most versions of pages that are kept compiled. */
const mostCompiled = 200;

/** Today's app, for calls that know the sealed values of an address. */
export interface Today {
  definition: Pick<AppDefinition, 'pages'>;
  compiled: CompiledApp;
  seals: Seals;
}

/** How a version of a page reads an address. */
export interface FormerReading {
  version: PromisedPage;
  compiled: CompiledApp;
  reading: Reading;
}

/** Reads addresses that today's edition does not know with the newest version of a page that knew them. */
export class FormerPages {
  /** By mount, without a “/” at the end; the newest versions first. */
  readonly #finders = new Map<string, PageFinder<PromisedPage[]>>();
  readonly #compiled = new Map<string, CompiledApp>();
  readonly #withdrawn: ReadonlySet<string>;
  readonly #versions: readonly PromisedPage[];
  /** Segments that are literals of some version of a page. */
  readonly literals = new Set<string>();

  /** @param withdrawn promises that builders gave up */
  constructor(versions: readonly PromisedPage[], withdrawn: ReadonlySet<string>) {
    this.#withdrawn = withdrawn;
    this.#versions = versions;
    const last = ({ editions }: PromisedPage) => editions.at(-1) ?? 0;
    for (const version of versions.toSorted((one, other) => last(other) - last(one))) {
      const mount = version.app.mount === '/' ? '' : version.app.mount;
      let finder = this.#finders.get(mount);
      if (finder === undefined) this.#finders.set(mount, (finder = new PageFinder()));
      const { address = '', formerAddresses = [] } = version.app.pages[version.page] ?? {};
      for (const segment of (mount + address.replace(/\{.*$/s, '')).split('/')) this.literals.add(segment);
      for (const template of [address, ...formerAddresses.map(formerTemplate)])
        finder.claim({ ...parseTemplate(template).template, query: [] }, [version])?.push(version);
    }
  }

  /**
   * Where an address leads that today's edition does not know.
   * @param address path and query
   * @returns today's address; `removed` where the page is no more, or takes the values no more; undefined where no edition knew it
   */
  find(address: string, today: Today): { to: string } | 'removed' | undefined {
    for (const { version, compiled, reading } of this.readings(address, today.seals)) {
      if (withdrawnMarks(version).some((mark) => this.#withdrawn.has(mark))) return 'removed';
      const to = todaysAddress(version, reading, compiled.pages.get(version.page) as CompiledPage, today);
      return to === undefined ? 'removed' : { to };
    }
    return undefined;
  }

  /** How versions of pages read an address, the newest first; those that refuse it are left out. */
  *readings(address: string, seals: Seals): Generator<FormerReading> {
    const pathEnd = /[?#]|$/.exec(address)?.index ?? address.length;
    for (const [mount, finder] of this.#finders) {
      if (!address.startsWith(mount) || (pathEnd > mount.length && address[mount.length] !== '/')) continue;
      for (const version of finder.find(address, mount.length, pathEnd, []) ?? []) {
        const compiled = withContext(this.#compile(version), { seals });
        const reading = readAddress(compiled, address);
        if (reading.status === 'found' && reading.page === version.page && reading.parameters.every(({ problem }) => problem === undefined))
          yield { version, compiled, reading };
      }
    }
  }

  /** A page as it was in an edition. */
  pageIn(edition: number, page: string): { version: PromisedPage; compiled: CompiledApp } | undefined {
    const version = this.#versions.find((one) => one.page === page && one.editions.includes(edition));
    return version === undefined ? undefined : { version, compiled: this.#compile(version) };
  }

  #compile({ key, app }: PromisedPage): CompiledApp {
    let compiled = this.#compiled.get(key);
    if (compiled === undefined) {
      if (this.#compiled.size >= mostCompiled) this.#compiled.clear();
      this.#compiled.set(key, (compiled = compileApp(app).app));
    }
    return compiled;
  }
}

function todaysAddress(
  { page: name }: PromisedPage,
  was: Reading,
  then: CompiledPage,
  { definition, compiled, seals }: Today,
): string | undefined {
  const page = compiled.pages.get(name) ?? compiled.formerPages.get(name);
  if (page === undefined || definition.pages[page.name] === undefined) return undefined;
  const values: Values = {};
  const inPath = was.parameters.filter(({ place }) => place === 'path');
  for (const [index, { name: former, value, origin, place }] of was.parameters.entries()) {
    if (value === undefined || origin === 'default') continue;
    const today =
      page.byName.get(former) ??
      page.parameters.find(({ declaration }) => declaration.formerNames?.includes(former)) ??
      (place === 'path' ? page.path[inPath.findIndex((one) => one.name === former)] : undefined);
    const text = then.parameters[index]?.plain.write(value);
    const read = text === undefined ? undefined : today?.plain.read(text, 0, text.length);
    if (today === undefined || read === undefined) return undefined;
    values[today.name] = read;
  }
  const app = withContext(compiled, { seals });
  const { address } = writeAddress(app, page.name, values);
  return address !== undefined && readAddress(app, address).status === 'found' ? address : undefined;
}
