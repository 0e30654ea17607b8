import type { Page } from '@pallmist/address';
import { describePages, type ParameterDeclaration } from '@pallmist/address/declare';
import type { CompiledPage } from '@pallmist/address/pages';
import { compileApp } from '../compile-with-all-types.ts';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { equal } from '../editing/compare-data.ts';
import { addressFromCode } from './address-from-code.ts';
import { ParametersFromCode } from './parameters-from-code.ts';

/** An app with pages as code declares them. */
export interface PagesFromCode {
  definition: AppDefinition;
  /** Names of the pages that are new, and of those whose address or parameters are others than before. */
  added: string[];
  changed: string[];
  /** Collections that were made for records, of which code knows the form of their keys alone. */
  collections: string[];
}

/**
 * Puts the addresses and parameters of pages that were declared in code (`page` of `@pallmist/address`) into an app. What
 * these pages show stays, and so do all other pages; a page that the app does not have comes without content.
 * @param pages by their names in the app
 */
export function pagesFromCode(definition: AppDefinition, pages: Readonly<Record<string, Page<string, unknown>>>): PagesFromCode {
  const described = describePages(definition.app, definition.mount, pages);
  const taken = new ParametersFromCode(definition, described);
  const compiled = compileApp(definition).app.pages;
  const all: Record<string, PageDefinition> = { ...definition.pages };
  const added: string[] = [];
  const changed: string[] = [];
  for (const [name, { address, parameters = {} }] of Object.entries(described.pages)) {
    const present = definition.pages[name];
    const next = pageFromCode(present, { name, address, parameters, code: pages[name] as Page, compiled: compiled.get(name) }, taken);
    if (present !== undefined && equal(present, next)) continue;
    (present === undefined ? added : changed).push(name);
    all[name] = next;
  }
  return { definition: { ...taken.app, pages: all }, added, changed, collections: taken.collections };
}

/** A page that code declares. */
interface Declared {
  name: string;
  address: string;
  parameters: Readonly<Record<string, ParameterDeclaration>>;
  code: Page;
  /** The page as the app has it today. */
  compiled: CompiledPage | undefined;
}

/** A page with the address and the parameters that code declares; what it shows stays. */
function pageFromCode(
  present: PageDefinition | undefined,
  { name, address, parameters, code, compiled }: Declared,
  taken: ParametersFromCode,
): PageDefinition {
  const { mount, parameters: ofApp = {} } = taken.app;
  const before = present?.parameters ?? {};
  // Code cannot read what is sealed: it stays as the app file has it.
  const sealed = Object.entries(before).filter(([, one]) => one.sealed !== undefined && one.sealed !== false);
  const own = Object.entries(parameters).flatMap(([parameter, declared]) => {
    if (Object.hasOwn(ofApp, parameter) && before[parameter] === undefined) return [];
    const slot = code.byName.get(parameter);
    const given = slot?.parameter.options.default;
    const fallback = compiled?.byName.get(parameter)?.fallback;
    // What the app file says in its own way, such as a day that counts from today, stays where it means the same.
    const sameDefault = typeof given === 'function' || (given !== undefined && fallback !== undefined && equal(given, fallback()));
    return [[parameter, taken.parameter(before[parameter], declared, { sameDefault, inPath: slot?.inPath === true })] as const];
  });
  const kept = Object.keys(before);
  const next = new Map([...own, ...sealed]);
  const ordered = [...kept.filter((one) => next.has(one)), ...[...next.keys()].filter((one) => !kept.includes(one))];
  const declared =
    ordered.length === 0 ? {} : { parameters: Object.fromEntries(ordered.map((one) => [one, next.get(one) as ParameterDeclaration])) };
  const template = addressFromCode(address, { mount, present: present?.address, sealed: sealed.map(([one]) => one), own: ordered });
  if (present === undefined) return { title: name, address: template, ...declared, content: [] } as PageDefinition;
  const { parameters: _, ...bare } = present;
  return { ...(ordered.length === 0 ? bare : present), address: template, ...declared } as PageDefinition;
}
