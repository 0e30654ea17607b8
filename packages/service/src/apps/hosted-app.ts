import {
  own,
  checkAppFile,
  compileApp,
  defaultKilobytes,
  pagePart,
  parametersAsked,
  todayIn,
  withPlaces,
  type AppDefinition,
  type CheckedApp,
  type CompiledApp,
  type PageDefinition,
  type PagePart,
  type Problem,
} from '@pallmist/app';
import type { WallClock } from '../clock.ts';

/** An app that is being served: an edition at its mount, a draft under `/~/draft/`, or an edition beside it under `/~/published/`. */
export interface HostedApp {
  definition: AppDefinition;
  compiled: CompiledApp;
  /** For builders only: a draft, or a published edition beside it. What happens there is not counted, and nothing is mailed. */
  draft: boolean;
  /** Whether its records are those that a draft may have for itself. */
  trial: boolean;
  /** Number of the edition; 0 for a draft. */
  edition: number;
  /** Scope of its sessions, and the path of its cookie. */
  scope: string;
  cookiePath: string;
  /** The greatest file that any of its fields takes, in bytes; 0 where none does. */
  greatestFile: number;
  /** Today in the app's time zone, YYYY-MM-DD. */
  today(): string;
  /** Parameters of a page at whose change a browser asks the service, since it settles conditions by them. */
  asks(page: string): readonly string[];
  /** What showing a page needs, once its conditions are settled; cut out once for each variant. */
  part(name: string, settled: { page: PageDefinition; variant: string }, held: readonly number[]): PagePart;
}

/** Variants of a page, by what its conditions hide, that are kept at a time. */
const mostVariants = 100;

/** Where a draft is served. */
export const draftMount = (app: string): string => `/~/draft/${app}`;

/** Where builders look at what is published while they change it. */
export const publishedMount = (app: string): string => `/~/published/${app}`;

/** A text of an app file: an edition, or, as number 0, the draft. */
export interface AppSource {
  source: string;
  edition: number;
}

/**
 * Makes an app ready to be served.
 * @returns the problems instead when it cannot be: it has not the shape of an app file, or a pattern that would keep the
 * service busy
 */
export function hostApp({ source, edition }: AppSource, clock: WallClock): HostedApp | { problems: Problem[] } {
  return hostChecked(checkAppFile(source), edition, clock);
}

/** The same for what is checked already. */
export function hostChecked(checked: CheckedApp, edition: number, clock: WallClock): HostedApp | { problems: Problem[] } {
  if (!checked.definition || !checked.compiled) return { problems: checked.problems };
  const { app } = checked.definition;
  return edition === 0
    ? host(asDraft(checked.definition), { draft: true, trial: true, edition, scope: `draft:${app}` }, clock)
    : host(checked.definition, { draft: false, trial: false, edition, scope: `live:${app}` }, clock);
}

/** A published app for builders to look at, at a place of its own: it can stand in a frame, and nobody counts its visits. */
export const hostBeside = ({ definition, edition }: HostedApp, clock: WallClock): HostedApp =>
  host(
    { ...definition, mount: publishedMount(definition.app), formerMounts: [] },
    { draft: true, trial: false, edition, scope: `beside:${definition.app}` },
    clock,
  );

function host(definition: AppDefinition, as: Pick<HostedApp, 'draft' | 'trial' | 'edition' | 'scope'>, clock: WallClock): HostedApp {
  const today = () => todayIn(definition.timeZone ?? 'UTC', clock());
  const parts = new Map<string, PagePart>();
  const asks = new Map<string, readonly string[]>();
  return {
    definition,
    compiled: compileApp(definition, { today }).app,
    ...as,
    cookiePath: definition.mount,
    greatestFile: greatestFileOf(definition),
    today,
    asks(name) {
      let asked = asks.get(name);
      const page = own(definition.pages, name);
      if (asked === undefined) asks.set(name, (asked = page ? parametersAsked(page) : []));
      return asked;
    },
    part(name, { page, variant }, held) {
      const key = `${name} ${variant} ${held.join(',')}`;
      let part = parts.get(key);
      if (part === undefined) {
        if (parts.size >= mostVariants + Object.keys(definition.pages).length) parts.clear();
        parts.set(key, (part = pagePart(definition, name, page, held)));
      }
      return part;
    },
  };
}

/** A draft as it is served: at its own place, each component knowing where it stands, so that the console can point at it. */
function asDraft(definition: AppDefinition): AppDefinition {
  const pages = Object.entries(definition.pages).map(([name, page]): [string, PageDefinition] => [name, placedPage(page)]);
  return { ...definition, mount: draftMount(definition.app), formerMounts: [], pages: Object.fromEntries(pages) };
}

const placed = new WeakMap<PageDefinition, PageDefinition>();

function placedPage(page: PageDefinition): PageDefinition {
  let found = placed.get(page);
  if (found === undefined) placed.set(page, (found = { ...page, content: withPlaces(page.content) }));
  return found;
}

function greatestFileOf({ collections = {} }: AppDefinition): number {
  const fields = Object.values(collections).flatMap(({ fields }) => Object.values(fields));
  return Math.max(0, ...fields.filter(({ type }) => type === 'file').map(({ maxKilobytes }) => (maxKilobytes ?? defaultKilobytes) * 1000));
}
