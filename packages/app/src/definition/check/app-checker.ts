import type { Problem } from '@pallmist/address/declare';
import type { z } from 'zod';
import { pageOfAppFile } from '../app-file-schema.ts';
import { expandBlocks } from '../blocks/expand-blocks.ts';
import { problemsAsWritten } from '../blocks/places-in-blocks.ts';
import type { AppDefinition, PageDefinition } from '../app-definition.ts';
import { appWithAnyComponents } from '../app-schema.ts';
import { linksFrom } from '../../components/walk-content.ts';
import { shapeProblems } from '../shape-problems.ts';
import { type CheckedApp, checkDefinition } from './check-definition.ts';
import { checkPageContent } from './content.ts';
import type { CheckContext } from './context.ts';

type Shape<Value> = { value: Value } | { error: z.ZodError };

/** What was found of a page, and what it was found by. */
interface PageFindings {
  page: PageDefinition;
  /** The parts of the app beside its pages, in the order of `partsBeside`. */
  beside: readonly unknown[];
  /** What the pages that it leads to declare. */
  targets: ReadonlyMap<string, unknown>;
  /** The pages that there were. */
  pageNames: string;
  problems: Problem[];
}

const partsBeside = [
  'choices',
  'parameters',
  'collections',
  'mails',
  'sites',
  'gates',
  'language',
  'words',
  'signIn',
  'navigation',
  'blocks',
] as const;

/**
 * Checks an app again and again while it is changed. Data are given, not text, and parts that are the same objects as
 * before are not checked again: after one change of a large app, little more than that page is.
 */
export class AppChecker {
  readonly #shapes = new WeakMap<object, Shape<PageDefinition>>();
  readonly #parts = new Map<string, { given: unknown; value: unknown }>();
  #found = new Map<string, PageFindings>();

  /** @param data of an app file of today's form; problems have no lines, since there is no text */
  check(data: unknown): CheckedApp {
    const expanded = expandBlocks(data);
    const asWritten = (problems: readonly Problem[]) => problemsAsWritten([...expanded.problems, ...problems], expanded, data);
    const shaped = this.#shape(expanded.data);
    if ('problems' in shaped) return { problems: asWritten(shaped.problems) };
    const { definition } = shaped;
    const found = new Map<string, PageFindings>();
    const pageNames = Object.keys(definition.pages).join(' ');
    const { compiled, problems } = checkDefinition(definition, (context, name, page) => {
      const known = this.#found.get(name);
      const findings = known && isStill(known, context, page, pageNames) ? known : findIn(context, name, page, pageNames);
      found.set(name, findings);
      context.problems.push(...findings.problems);
    });
    this.#found = found;
    return { definition, compiled, problems: asWritten(problems) };
  }

  /** The app's definition; parts that have not changed are the same objects again. */
  #shape(data: unknown): { definition: AppDefinition } | { problems: Problem[] } {
    if (typeof data !== 'object' || data === null || Array.isArray(data))
      return problemsOf(appWithAnyComponents.safeParse(data).error, data);
    const { pages: givenPages, ...rest } = data as Record<string, unknown>;
    if (typeof givenPages !== 'object' || givenPages === null || Array.isArray(givenPages))
      return problemsOf(appWithAnyComponents.safeParse(data).error, data);
    const top = appWithAnyComponents.safeParse({ ...rest, pages: {} });
    const pages: Record<string, PageDefinition> = {};
    const issues: z.core.$ZodIssue[] = top.success ? [] : [...top.error.issues];
    for (const [name, given] of Object.entries(givenPages as Record<string, unknown>)) {
      const shape = this.#shapeOfPage(given);
      if ('value' in shape) pages[name] = shape.value;
      else issues.push(...shape.error.issues.map((issue) => ({ ...issue, path: ['pages', name, ...issue.path] })));
    }
    // Names of pages are checked with the whole; there are few problems then.
    const named = appWithAnyComponents.shape.pages.keyType;
    for (const name of Object.keys(givenPages)) {
      const result = named.safeParse(name);
      if (!result.success) issues.push(...result.error.issues.map((issue) => ({ ...issue, path: ['pages', name] })));
    }
    if (!top.success || issues.length > 0) return problemsOf({ issues } as z.ZodError, data);
    return { definition: { ...this.#sameParts(rest, top.data), pages } };
  }

  #shapeOfPage(given: unknown): Shape<PageDefinition> {
    const known = typeof given === 'object' && given !== null ? this.#shapes.get(given) : undefined;
    if (known) return known;
    const parsed = pageOfAppFile.safeParse(given);
    const shape: Shape<PageDefinition> = parsed.success ? { value: parsed.data } : { error: parsed.error };
    if (typeof given === 'object' && given !== null) this.#shapes.set(given, shape);
    return shape;
  }

  #sameParts(given: Record<string, unknown>, parsed: AppDefinition): AppDefinition {
    const parts = { ...parsed } as Record<string, unknown>;
    for (const key of Object.keys(parts)) {
      const known = this.#parts.get(key);
      if (known && known.given === given[key]) parts[key] = known.value;
      else this.#parts.set(key, { given: given[key], value: parts[key] });
    }
    return parts as AppDefinition;
  }
}

function problemsOf(error: z.ZodError | undefined, data: unknown): { problems: Problem[] } {
  return { problems: error ? shapeProblems(error, data) : [] };
}

function findIn(context: CheckContext, name: string, page: PageDefinition, pageNames: string): PageFindings {
  const problems: Problem[] = [];
  checkPageContent({ ...context, problems }, name, page);
  return {
    page,
    beside: partsBeside.map((part) => context.definition[part]),
    targets: new Map([...linksFrom(page, context.definition.mails)].map((target) => [target, declaredBy(context, target)])),
    pageNames,
    problems,
  };
}

function isStill(known: PageFindings, context: CheckContext, now: PageDefinition, pageNames: string): boolean {
  const { page, beside, targets } = known;
  if (page !== now || known.pageNames !== pageNames) return false;
  if (partsBeside.some((part, index) => context.definition[part] !== beside[index])) return false;
  return [...targets].every(([target, declared]) => declaredBy(context, target) === declared);
}

const declarations = new WeakMap<PageDefinition, string>();

/** What a link to a page depends on; another text where that has changed. */
function declaredBy({ definition }: CheckContext, target: string): string | undefined {
  const page = definition.pages[target];
  if (page === undefined) return undefined;
  let declared = declarations.get(page);
  if (declared === undefined) declarations.set(page, (declared = JSON.stringify([page.address, page.parameters])));
  return declared;
}
