import { formerTemplate, parseTemplate, type ParameterDeclaration, type Values } from '@pallmist/address/declare';
import { writeAddress, type AddressableApp, type CompiledApp, type CompiledPage } from '@pallmist/address/pages';
import { valuesToTry } from './values-to-try.ts';

/** Today's declaration of a parameter of an earlier edition. */
export type Today = (parameter: string) => ParameterDeclaration | undefined;

/** The values that are tried of each parameter, and whether today's declaration takes the first one as it is. */
export interface TriedValues {
  page: CompiledPage;
  values: ReadonlyMap<string, readonly unknown[]>;
  same: ReadonlySet<string>;
  /** A value for each parameter that the address cannot do without. */
  needed: Values;
}

/**
 * @param same parameters that are declared as they were: one value of each will do
 * @param unchanged whether a value means today what it meant: such a one is taken where any will do */
export function triedValues(
  app: AddressableApp,
  compiled: CompiledApp,
  name: string,
  today: Today,
  unchanged: (parameter: string, value: unknown) => boolean,
  same: ReadonlySet<string>,
): TriedValues | undefined {
  const page = compiled.pages.get(name);
  if (page === undefined) return undefined;
  const values = new Map<string, readonly unknown[]>();
  const needed: Values = {};
  for (const parameter of page.parameters) {
    if (same.has(parameter.name) && !parameter.required) continue;
    const tried = valuesToTry(parameter, today(parameter.name), app);
    values.set(parameter.name, tried);
    if (!parameter.required) continue;
    const solid = tried.filter((value) => value !== '');
    needed[parameter.name] = (solid.find((value) => unchanged(parameter.name, value)) ?? solid[0]) as Values[string];
  }
  return { page, values, needed, same };
}

/** Addresses that an earlier edition gave or took, in which a change of a declaration shows: one value beside what is needed. */
export function* witnessAddresses(
  app: AddressableApp,
  compiled: CompiledApp,
  { page, values, needed, same }: TriedValues,
): Generator<string> {
  const write = (given: Values) => writeAddress(compiled, page.name, given).address;
  const bare = write(needed);
  if (bare !== undefined) yield bare;
  yield* formerAddressesOf(app, page, needed);
  for (const parameter of page.parameters) {
    if (same.has(parameter.name)) continue;
    for (const value of values.get(parameter.name) ?? []) {
      const address = write({ ...needed, [parameter.name]: value as Values[string] });
      if (address !== undefined && address !== bare) yield address;
    }
    if (bare === undefined || parameter.place === 'path') continue;
    const sign = bare.includes('?') ? '&' : '?';
    // A default may be written out, and the empty text may be a value of its own.
    if (parameter.fallback !== undefined && !parameter.sealed) {
      const text = parameter.plain.write(parameter.fallback());
      if (text !== undefined) yield `${bare}${sign}${parameter.name}=${text}`;
    }
    yield `${bare}${sign}${parameter.name}=`;
    for (const former of parameter.declaration.formerNames ?? []) {
      const text = parameter.parameter.write(values.get(parameter.name)?.[0]);
      if (text !== undefined) yield `${bare}${sign}${former}=${text}`;
    }
  }
  for (const list of formerValuesOf(app, page))
    yield* list.map(([name, text]) => `${bare ?? ''}${bare?.includes('?') === true ? '&' : '?'}${name}=${encodeURIComponent(text)}`);
}

/** An address for each former template of the page, which still works. */
function* formerAddressesOf({ mount, pages }: AddressableApp, page: CompiledPage, needed: Values): Generator<string> {
  const textOf = (name: string) => page.byName.get(name)?.parameter.write(needed[name]) ?? '';
  for (const former of pages[page.name]?.formerAddresses ?? []) {
    const { template } = parseTemplate(formerTemplate(former));
    const path = template.segments.map(
      (segment) => `/${'literal' in segment ? encodeURIComponent(segment.literal) : textOf(segment.parameter)}`,
    );
    const query = template.query.filter((name) => needed[name] !== undefined).map((name) => `${name}=${textOf(name)}`);
    yield `${mount === '/' ? '' : mount}${path.join('')}${query.length > 0 ? `?${query.join('&')}` : ''}`;
  }
}

/** Former values of choices and of retyped parameters, which still work. */
function formerValuesOf({ choices = {} }: AddressableApp, { query }: CompiledPage): [name: string, text: string][][] {
  return query.map(({ name, declaration }) => {
    const list = Object.values(choices[declaration.of ?? declaration.items?.of ?? ''] ?? {});
    const former = list.flatMap((choice) => (typeof choice === 'string' ? [] : (choice.formerValues ?? [])));
    return [...former, ...Object.keys(declaration.formerValues ?? {})].map((text): [string, string] => [name, text]);
  });
}
