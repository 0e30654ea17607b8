import type { AddressableApp, AddressablePage } from '@pallmist/address/pages';
import type { ParameterDeclaration } from '@pallmist/address/declare';
import { leadOn } from '../../components/lead-on/definition.ts';
import type { AppDefinition, PageDefinition } from '../../definition/app-definition.ts';
import { TemplateIndex, type Rival } from './template-index.ts';

/** All that the addresses of one page depend on, as it was in some editions. Equal versions have equal keys. */
export interface PageVersion {
  page: string;
  /** An app with this page, and of everything else what its addresses depend on. */
  app: AddressableApp;
  /** Where the page leads on to, as JSON; missing for a page that is shown. */
  leadsOn?: string;
  key: string;
}

/** The version of each page of a state of an app. */
export function pageVersions(definition: AppDefinition): PageVersion[] {
  const templates = templatesOf(definition);
  return Object.entries(definition.pages).map(([name, page]) => pageVersion(definition, name, page, templates));
}

/** The templates of all pages. */
export const templatesOf = ({ pages }: AppDefinition): TemplateIndex =>
  new TemplateIndex(Object.entries(pages).map(([name, { address }]) => [name, address] as const));

/** What a version was made of: while these are the same objects, it is the same. */
interface MadeOf {
  parts: readonly unknown[];
  version: PageVersion;
}
const made = new WeakMap<PageDefinition, MadeOf>();

/** The version of a page. A draft that is changed keeps the objects that it does not change, and so their versions. */
export function pageVersion(definition: AppDefinition, name: string, page: PageDefinition, templates: TemplateIndex): PageVersion {
  const { app, mount, timeZone, choices, collections, parameters } = definition;
  const rivals = templates.rivalsOf(page.address, name);
  const names = Object.values({ ...page.parameters, ...parameters }).some(({ type, items }) => type === 'page' || items?.type === 'page');
  const ofRivals = rivals.map((rival) => `${rival.page} ${rival.address}`).join('\n');
  const parts = [name, app, mount, timeZone, choices, collections, parameters, ofRivals, names ? definition.pages : undefined];
  const known = made.get(page);
  if (known?.parts.every((part, index) => part === parts[index]) === true) return known.version;
  const version = makeVersion(definition, name, page, rivals);
  made.set(page, { parts, version });
  return version;
}

function makeVersion(definition: AppDefinition, name: string, page: PageDefinition, rivals: readonly Rival[]): PageVersion {
  const { choices = {}, collections = {}, mount, timeZone } = definition;
  const parameters = mapped(page.parameters ?? {});
  const ofApp = mapped(definition.parameters ?? {});
  const declared = [...Object.values(parameters), ...Object.values(ofApp)];
  const named = new Set(declared.flatMap(({ of, items }) => [of, items?.of]).filter((of) => of !== undefined));
  const pick = <Value, Kept>(of: Readonly<Record<string, Value>>, keep: (value: Value) => Kept) =>
    Object.fromEntries(Object.entries(of).flatMap(([key, value]) => (named.has(key) ? [[key, keep(value)] as const] : [])));
  const addresses: AddressablePage = { address: page.address, parameters };
  if (page.formerNames) addresses.formerNames = page.formerNames;
  if (page.formerAddresses) addresses.formerAddresses = page.formerAddresses;
  const app: AddressableApp = {
    app: definition.app,
    mount,
    timeZone: timeZone ?? 'UTC',
    choices: {
      ...pick(choices, (list) => Object.fromEntries(Object.entries(list).map(([value, of]) => [value, withoutLabel(of)]))),
      // The values of the type page are the names of the app’s pages.
      ...(named.has(pagesList) ? { [pagesList]: pageNames(definition) } : {}),
    },
    collections: pick(collections, ({ keyField, formerKeys, fields }) => ({
      keyField,
      ...(formerKeys ? { formerKeys } : {}),
      fields: Object.fromEntries(
        Object.entries(fields).map(([field, { type, pattern, maxLength, formerNames }]) => [
          field,
          {
            type,
            ...(pattern === undefined ? {} : { pattern }),
            ...(maxLength === undefined ? {} : { maxLength }),
            ...(formerNames ? { formerNames } : {}),
          },
        ]),
      ),
    })),
    parameters: ofApp,
    pages: {
      [name]: addresses,
      // Which addresses it left to other pages.
      ...Object.fromEntries(rivals.map((rival) => [rival.page, { address: rival.address }])),
    },
  };
  const leading = page.content.filter(({ show }) => show === leadOn.name);
  const leadsOn = leading.length === 0 ? {} : { leadsOn: JSON.stringify(leading.map(({ when, to }) => [when, to])) };
  return { page: name, app, ...leadsOn, key: JSON.stringify([app, leadsOn.leadsOn], withoutSamples) };
}

/** The choices list that stands for the pages of the app as it was. */
export const pagesList = '~pages';

/** Attributes that no reading of an address depends on. */
const silent = new Set<keyof ParameterDeclaration>(['label', 'help', 'step', 'resets', 'share']);

function mapped(parameters: Readonly<Record<string, ParameterDeclaration>>): Record<string, ParameterDeclaration> {
  return Object.fromEntries(
    Object.entries(parameters).map(([name, declaration]) => {
      const kept = Object.fromEntries(
        Object.entries(declaration).filter(([attribute]) => !silent.has(attribute as keyof ParameterDeclaration)),
      ) as unknown as ParameterDeclaration;
      if (kept.type === 'page') return [name, { ...kept, type: 'choice', of: pagesList }];
      if (kept.items?.type === 'page') return [name, { ...kept, items: { type: 'choice', of: pagesList } }];
      return [name, kept];
    }),
  );
}

const withoutLabel = (of: string | { label: string; formerValues?: readonly string[] | undefined }) =>
  typeof of === 'string' || of.formerValues === undefined ? '' : { label: '', formerValues: of.formerValues };

const pageNames = ({ pages }: AppDefinition) =>
  Object.fromEntries(
    Object.entries(pages).map(([name, { formerNames }]) => [name, formerNames ? { label: '', formerValues: formerNames } : '']),
  );

/** Samples help to make an address to try; they change nothing. */
const withoutSamples = (key: string, value: unknown): unknown => (key === 'sample' ? undefined : value);
