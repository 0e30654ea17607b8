import type { Page } from '../page.ts';
import type { AddressableApp, AddressablePage } from '../pages/compiled-app.ts';
import type { Parameter } from '../parameter.ts';
import type { Template } from '../template.ts';
import type { ChoiceDefinition } from '../values.ts';
import { compileApp } from './compile.ts';
import type { CollectionShape, ParameterDeclaration } from './declaration.ts';
import { formatTemplate } from './parse-template.ts';
import type { Problem } from './problem.ts';

type AnyPage = Page<string, unknown>;

/**
 * Writes pages that were declared in code as the addresses of an app file, which is plain data (JSON).
 * What only code can say is left out: a default that is a function, and a pattern that is no text. An app has one time zone: it
 * is that of the first parameter with one.
 * @param mount `/` or a path such as `/garden`, with which each page's own address goes on
 */
export function describePages(app: string, mount: string, pages: Readonly<Record<string, AnyPage>>): AddressableApp {
  const lists: Record<string, Record<string, ChoiceDefinition>> = {};
  const collections: Record<string, CollectionShape> = {};
  const described: Record<string, AddressablePage> = {};
  let timeZone: string | undefined;
  for (const [name, page] of Object.entries(pages)) {
    const parameters: Record<string, ParameterDeclaration> = {};
    for (const slot of page.slots) {
      parameters[slot.name] = describe(slot.parameter, `${name}-${slot.name}`, lists, collections);
      timeZone ??= timeZoneOf(slot.parameter);
    }
    described[name] = { address: addressOf(page), parameters };
  }
  return { app, mount, choices: lists, collections, pages: described, ...(timeZone === undefined ? {} : { timeZone }) };
}

/**
 * Checks pages that were declared in code: defaults and samples out of their limits, limits that cross, names that clash,
 * two pages at one address. For development and tests; reading and writing does without.
 * @returns every problem; the pointers are those of an app file with these pages
 */
export const checkPages = (pages: Readonly<Record<string, AnyPage>>): Problem[] =>
  compileApp(describePages('checked', '/', pages)).problems;

const addressOf = ({ segments, slots, inPath, optional }: Template): string =>
  formatTemplate({
    segments: segments.map((segment, index) =>
      typeof segment === 'string' ? { literal: segment } : { parameter: segment.name, optional: optional && index === segments.length - 1 },
    ),
    query: slots.slice(inPath).map(({ name }) => name),
    repeated: new Set(slots.filter(({ repeated }) => repeated).map(({ name }) => name)),
  });

/** The time zone of a moment, or of the moments of a list. */
const timeZoneOf = ({ type, options, of }: Parameter): string | undefined =>
  type === 'list' ? timeZoneOf(of as Parameter) : (options as { timeZone?: string }).timeZone;

function describe(
  { type, options, of }: Parameter,
  name: string,
  lists: Record<string, Record<string, ChoiceDefinition>>,
  collections: Record<string, CollectionShape>,
): ParameterDeclaration {
  const { pattern, maxLength, timeZone: _, ...said } = options as ParameterDeclaration & { pattern?: unknown; timeZone?: unknown };
  const declaration: ParameterDeclaration = { ...said, type };
  if (typeof declaration.default === 'function') delete declaration.default;
  const limits = { ...(typeof pattern === 'string' ? { pattern } : {}), ...(maxLength === undefined ? {} : { maxLength }) };
  switch (type) {
    case 'choice':
      lists[name] = Array.isArray(of)
        ? Object.fromEntries((of as string[]).map((value) => [value, value]))
        : (of as Record<string, ChoiceDefinition>);
      return { ...declaration, of: name };
    case 'record':
      // In code the key's form is all that is known of the collection.
      collections[name] = { keyField: 'key', fields: { key: { type: 'text', ...limits } } };
      return { ...declaration, of: name };
    case 'list':
      return { ...declaration, items: describe(of as Parameter, name, lists, collections) };
    case 'range': {
      const end = of as Parameter;
      const { min, max } = end.options as ParameterDeclaration;
      return { ...declaration, of: end.type, ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) };
    }
    case 'packed':
      return of === undefined ? declaration : { ...declaration, schema: of };
    case 'sort':
      return { ...declaration, fields: of as string[] };
    default:
      return { ...declaration, ...limits };
  }
}
