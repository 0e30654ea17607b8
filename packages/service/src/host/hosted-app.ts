import {
  appPartFor,
  checkAppFile,
  compileApp,
  defaultKilobytes,
  fieldsNamedOn,
  programsFor,
  usesPacked,
  usesSealed,
  type AppDefinition,
  type AppPart,
  type CompiledApp,
  type Problem,
  type Programs,
} from '@pallmist/core';

/** An app that is being served: an edition at its mount, or a draft under `/-/draft/`. */
export interface HostedApp {
  definition: AppDefinition;
  compiled: CompiledApp;
  draft: boolean;
  /** Scope of its sessions, and the path of its cookie. */
  scope: string;
  cookiePath: string;
  /** The greatest file that any of its fields takes, in bytes; 0 where none does. */
  greatestFile: number;
  /** What showing each page needs, cut out once. */
  part(page: string): PagePart;
}

/** What showing one page needs of its app. */
export interface PagePart {
  app: AppPart;
  programs: Programs;
  cel: boolean;
  packed: boolean;
  /** Whether its addresses hold sealed values. */
  sealed: boolean;
  /** The fields of records that the page mentions, and keys and titles: no browser gets more than its page shows. */
  fields: ReadonlySet<string>;
}

/** Where a draft is served. */
export const draftMount = (app: string): string => `/-/draft/${app}`;

/**
 * Makes an app ready to be served.
 * @returns the problems instead when the text has not even the shape of an app file
 */
export function hostApp(source: string, draft: boolean): HostedApp | { problems: Problem[] } {
  const checked = checkAppFile(source);
  if (!checked.definition || !checked.compiled) return { problems: checked.problems };
  const definition = draft ? { ...checked.definition, mount: draftMount(checked.definition.app) } : checked.definition;
  const compiled = draft ? compileApp(definition).app : checked.compiled;
  const parts = new Map<string, PagePart>();
  // Links and references are made from keys and titles.
  const naming = Object.values(definition.collections ?? {}).flatMap(({ key, title }) => (title === undefined ? [key] : [key, title]));
  return {
    definition,
    compiled,
    draft,
    scope: `${draft ? 'draft' : 'live'}:${definition.app}`,
    cookiePath: definition.mount,
    greatestFile: greatestFileOf(definition),
    part(page) {
      let part = parts.get(page);
      if (!part) {
        const pageDefinition = definition.pages[page];
        const app = appPartFor(definition, page);
        part = {
          app,
          packed: usesPacked(app),
          sealed: usesSealed(app),
          ...programsFor(definition, page),
          fields: new Set([...(pageDefinition ? fieldsNamedOn(pageDefinition, definition.mails) : []), ...naming]),
        };
        parts.set(page, part);
      }
      return part;
    },
  };
}

function greatestFileOf({ collections = {} }: AppDefinition): number {
  const fields = Object.values(collections).flatMap(({ fields }) => Object.values(fields));
  return Math.max(0, ...fields.filter(({ type }) => type === 'file').map(({ maxKilobytes }) => (maxKilobytes ?? defaultKilobytes) * 1000));
}
