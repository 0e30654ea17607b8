import type { ChoiceDefinition, Page } from '@pallmist/address';
import { describePages, formatTemplate, parseTemplate, type AddressTemplate, type ParameterDeclaration } from '@pallmist/address/declare';
import { compileApp } from '../compile-with-all-types.ts';
import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { equal } from '../editing/compare-data.ts';

/** An app with pages as code declares them. */
export interface PagesFromCode {
  definition: AppDefinition;
  /** Names of the pages that are new, and of those whose address or parameters are others than before. */
  added: string[];
  changed: string[];
  /** Collections that were made for records, of which code knows the form of their keys alone. */
  collections: string[];
}

/** What only an app file says of a parameter, and what is for people: code that leaves it out does not take it away. */
const keptAttributes = [
  'by',
  'tied',
  'reach',
  'sealed',
  'formerValues',
  'goneValues',
  'inNewLinks',
  'lasting',
  'label',
  'help',
  'sample',
] as const satisfies readonly (keyof ParameterDeclaration)[];

/**
 * Puts the addresses and parameters of pages that were declared in code (`page` of `@pallmist/address`) into an app. What
 * these pages show stays, and so do all other pages; a page that the app does not have comes without content.
 * @param pages by their names in the app
 */
export function pagesFromCode(definition: AppDefinition, pages: Readonly<Record<string, Page<string, unknown>>>): PagesFromCode {
  const described = describePages(definition.app, definition.mount, pages);
  const merge = new Merge(definition, described);
  const all: Record<string, PageDefinition> = { ...definition.pages };
  const added: string[] = [];
  const changed: string[] = [];
  for (const [name, { address, parameters = {} }] of Object.entries(described.pages)) {
    const present = definition.pages[name];
    const next = merge.page(name, present, address, parameters, pages[name] as Page);
    if (present !== undefined && equal(present, next)) continue;
    (present === undefined ? added : changed).push(name);
    all[name] = next;
  }
  return { definition: { ...merge.app, pages: all }, added, changed, collections: merge.collections };
}

class Merge {
  /** The app with the choices lists and collections that were added. */
  app: AppDefinition;
  readonly collections: string[] = [];
  readonly #described: ReturnType<typeof describePages>;
  readonly #compiled: ReturnType<typeof compileApp>['app']['pages'];

  constructor(definition: AppDefinition, described: ReturnType<typeof describePages>) {
    this.app = definition;
    this.#described = described;
    this.#compiled = compileApp(definition).app.pages;
  }

  page(
    name: string,
    present: PageDefinition | undefined,
    address: string,
    parameters: Readonly<Record<string, ParameterDeclaration>>,
    code: Page,
  ): PageDefinition {
    const ofApp = this.app.parameters ?? {};
    // Code cannot read what is sealed: it stays as the app file has it.
    const sealed = Object.entries(present?.parameters ?? {}).filter(([, one]) => one.sealed !== undefined && one.sealed !== false);
    const own = Object.entries(parameters).flatMap(([parameter, declared]) => {
      if (Object.hasOwn(ofApp, parameter) && present?.parameters?.[parameter] === undefined) return [];
      const given = code.byName.get(parameter)?.parameter.options.default;
      const fallback = this.#compiled.get(name)?.byName.get(parameter)?.fallback;
      // What the app file says in its own way, such as a day that counts from today, stays where it means the same.
      const sameDefault = typeof given === 'function' || (given !== undefined && fallback !== undefined && equal(given, fallback()));
      return [
        [
          parameter,
          this.#parameter(present?.parameters?.[parameter], declared, { sameDefault, inPath: code.byName.get(parameter)?.inPath === true }),
        ] as const,
      ];
    });
    const kept = Object.keys(present?.parameters ?? {});
    const next = new Map([...own, ...sealed]);
    const ordered = [...kept.filter((one) => next.has(one)), ...[...next.keys()].filter((one) => !kept.includes(one))];
    const all = Object.fromEntries(ordered.map((one) => [one, next.get(one) as ParameterDeclaration]));
    const template = this.#template(
      address,
      present?.address,
      sealed.map(([one]) => one),
      Object.keys(all),
    );
    const declared = ordered.length === 0 ? {} : { parameters: all };
    if (present === undefined) return { title: name, address: template, ...declared, content: [] } as PageDefinition;
    const { parameters: _, ...bare } = present;
    return { ...(ordered.length === 0 ? bare : present), address: template, ...declared } as PageDefinition;
  }

  /** The address without the mount and the app’s own parameters, and with those that are sealed. */
  #template(address: string, present: string | undefined, sealed: readonly string[], own: readonly string[]): string {
    const { mount } = this.app;
    const below = mount !== '/' && (address + '/').replace('{', '/{').startsWith(mount + '/') ? address.slice(mount.length) : address;
    const { template } = parseTemplate(below.startsWith('/') || below.startsWith('{/') ? below : `/${below}`);
    const query = template.query.filter((name) => own.includes(name));
    const was = present === undefined ? undefined : parseTemplate(present).template;
    if (was !== undefined && present !== undefined && sameTemplate({ ...template, query }, was, sealed)) return present;
    return formatTemplate({ ...template, query: [...query, ...(was?.query.filter((name) => sealed.includes(name)) ?? [])] });
  }

  #parameter(
    present: ParameterDeclaration | undefined,
    code: ParameterDeclaration,
    { sameDefault, inPath }: { sameDefault: boolean; inPath: boolean },
  ): ParameterDeclaration {
    const declared = JSON.parse(JSON.stringify(code)) as ParameterDeclaration;
    const sameType = present !== undefined && (present.type === declared.type || (present.type === 'page' && declared.type === 'choice'));
    const old: Partial<ParameterDeclaration> = sameType ? present : {};
    if (old.type === 'page') return { ...withoutList(declared), ...pickKept(old), type: 'page' };
    const next: ParameterDeclaration = Object.assign({ type: declared.type }, pickKept(old), declared);
    if (sameDefault && old.default !== undefined) next.default = old.default;
    // The path says by itself what is required in it.
    if (next.required === undefined && next.default === undefined && old.required !== undefined && (inPath || !old.required))
      next.required = old.required;
    this.#named(next, old);
    if (next.type === 'list' && next.items) next.items = this.#items(next.items, old.items);
    if (next.type === 'sort' && old.of !== undefined) keepFieldsOf(next, old, this.app);
    if (next.type === 'packed' && next.schema === undefined && old.schema !== undefined) next.schema = old.schema;
    return inOrderOf(next, old);
  }

  #items(items: NonNullable<ParameterDeclaration['items']>, old: ParameterDeclaration['items']) {
    const next = { ...items };
    this.#named(next, old?.type === items.type ? old : {});
    return next;
  }

  /** What a choice or a record is of: as in the app file where that means the same. */
  #named(next: Pick<ParameterDeclaration, 'type' | 'of'>, old: Pick<ParameterDeclaration, 'of'>): void {
    const { of } = next;
    if (of === undefined) return;
    if (next.type === 'choice') {
      const values = (this.#described.choices ?? {})[of] ?? {};
      const present = this.app.choices?.[old.of ?? ''];
      if (old.of !== undefined && present !== undefined && saysAsMuch(present, values)) next.of = old.of;
      else this.app = { ...this.app, choices: { ...this.app.choices, [of]: values as NonNullable<AppDefinition['choices']>[string] } };
    } else if (next.type === 'record') {
      const collection = this.#described.collections?.[of];
      if (old.of !== undefined) next.of = old.of;
      else if (collection !== undefined && this.app.collections?.[of] === undefined) {
        this.app = { ...this.app, collections: { ...this.app.collections, [of]: collection as never } };
        this.collections.push(of);
      }
    }
  }
}

/** Whether a choices list has these values, and their labels where they have any. */
function saysAsMuch(present: Readonly<Record<string, ChoiceDefinition>>, values: Readonly<Record<string, ChoiceDefinition>>): boolean {
  const names = Object.keys(values);
  return equal(names, Object.keys(present)) && names.every((name) => values[name] === name || equal(values[name], present[name]));
}

/** The fields of a sort: those of its collection, unless code lists others. */
function keepFieldsOf(next: ParameterDeclaration, { of, fields }: Partial<ParameterDeclaration>, { collections }: AppDefinition): void {
  next.of = of;
  const known = fields ?? Object.keys(collections?.[of ?? '']?.fields ?? {});
  if (!equal(next.fields, known)) return;
  if (fields === undefined) delete next.fields;
}

function sameTemplate(next: AddressTemplate, was: AddressTemplate, sealed: readonly string[]): boolean {
  const open = was.query.filter((name) => !sealed.includes(name));
  return (
    equal(next.segments, was.segments) &&
    equal(next.query, open) &&
    open.every((name) => next.repeated.has(name) === was.repeated.has(name))
  );
}

const pickKept = (old: Partial<ParameterDeclaration>): Partial<ParameterDeclaration> =>
  Object.fromEntries(keptAttributes.flatMap((name) => (old[name] === undefined ? [] : [[name, old[name]]])));

const withoutList = ({ of: _, ...declared }: ParameterDeclaration): ParameterDeclaration => declared;

/** The attributes in the order in which the app file has them, so that only what changes is written again. */
function inOrderOf(next: ParameterDeclaration, old: Partial<ParameterDeclaration>): ParameterDeclaration {
  const keys = Object.keys(next) as (keyof ParameterDeclaration)[];
  const known = Object.keys(old).filter((key): key is keyof ParameterDeclaration => keys.includes(key as never));
  return Object.fromEntries(
    [...known, ...keys.filter((key) => !known.includes(key))].map((key) => [key, next[key]]),
  ) as unknown as ParameterDeclaration;
}
