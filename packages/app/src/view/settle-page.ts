import type { Component, PageDefinition, ReadDefinition } from '../definition/app-definition.ts';
import { walkContent } from '../components/walk-content.ts';
import { kindOf } from '../components/kinds.ts';
import { mapInnerContent } from '../components/inner-content.ts';
import { pathsIn, rootsOf } from '../expressions/paths.ts';
import { expressionsIn } from './page-programs.ts';

/** What a condition may name that a browser settles by itself: the address, the language, what is the same for everybody. */
const browserRoots = new Set(['param', 'word', 'app']);
/** What is known before anything is loaded. */
const rootsBeforeLoad = new Set([...browserRoots, 'person', 'visit', 'previous', 'today']);

const namesOnly = (condition: string, roots: ReadonlySet<string>) => [...rootsOf(condition)].every((root) => roots.has(root));

/** Whether the browser settles a condition; every other one is settled by the service, and what it hides is not sent. */
export const isSettledByBrowser = (condition: string): boolean => namesOnly(condition, browserRoots);

/** Whether a condition can be settled before anything is loaded. */
export const isSettledBeforeLoad = (condition: string): boolean => namesOnly(condition, rootsBeforeLoad);

/** A page whose conditions are settled as far as they can be. */
export interface SettledPage {
  page: PageDefinition;
  /** What tells it from the page as others see it. */
  variant: string;
}

/** Pages without a condition that the service settles: the same for everybody. */
const alwaysTheSame = new WeakMap<PageDefinition, SettledPage | 'conditional'>();

const hasServiceConditions = (page: PageDefinition): boolean =>
  [...walkContent(page.content)]
    .map(({ component }) => component.when)
    .concat(Object.values(page.rows ?? {}).map(({ when }) => when))
    .some((condition) => condition !== undefined && !isSettledByBrowser(condition));

/**
 * Takes out of a page what is hidden, by the conditions that the service settles, and reads that nothing shows any more.
 * @param holds whether a condition holds; undefined where it cannot be told yet
 */
export function settlePage(page: PageDefinition, holds: (condition: string) => boolean | undefined): SettledPage {
  let known = alwaysTheSame.get(page);
  if (known === undefined)
    alwaysTheSame.set(page, (known = hasServiceConditions(page) ? 'conditional' : settleConditions(page, () => undefined)));
  return known === 'conditional' ? settleConditions(page, holds) : known;
}

function settleConditions(page: PageDefinition, holds: (condition: string) => boolean | undefined): SettledPage {
  let variant = '';
  /** @returns whether something is shown; `keep` where its condition stays */
  const settle = (condition: string | undefined): boolean | 'keep' => {
    if (condition === undefined || isSettledByBrowser(condition)) return 'keep';
    const held = holds(condition);
    variant += held === undefined ? '?' : held ? '1' : '0';
    return held ?? 'keep';
  };
  const settleAll = (content: readonly Component[]): Component[] =>
    content.flatMap((component): Component[] => {
      const shown = settle(component.when);
      if (shown === false) return [];
      const inner = mapInnerContent(component, settleAll);
      if (shown === 'keep') return [inner];
      const { when: _, ...settled } = inner;
      return [settled];
    });
  const content = settleAll(page.content);
  const reads: Record<string, ReadDefinition> = {};
  for (const [name, read] of Object.entries(page.rows ?? {})) {
    const shown = settle(read.when);
    const { when: _, ...settled } = read;
    reads[name] = shown === 'keep' ? read : shown ? settled : { ...settled, when: 'false' };
  }
  const named = namedReads({ ...page, content, rows: reads });
  const kept = Object.fromEntries(Object.entries(reads).filter(([name]) => named.has(name)));
  return { page: { ...page, content, ...(page.rows ? { rows: kept } : {}) }, variant };
}

/** The reads that a page shows, or whose rows or numbers its expressions name. */
function namedReads(page: PageDefinition): Set<string> {
  const named = new Set<string>();
  for (const { references } of walkContent(page.content)) for (const { name } of references.rows) named.add(name);
  for (const expression of expressionsIn(page, undefined))
    for (const [root, name] of pathsIn(expression))
      if (['rows', 'total', 'figures'].includes(root ?? '') && name !== undefined) named.add(name);
  return named;
}

/** Parameters on which conditions depend that the service settles: when one changes, the browser has to ask. */
export function parametersAsked(page: PageDefinition): string[] {
  const asked = new Set<string>();
  const look = (condition: string | undefined) => {
    if (condition === undefined || isSettledByBrowser(condition)) return;
    for (const [root, name] of pathsIn(condition)) if ((root === 'param' || root === 'label') && name !== undefined) asked.add(name);
  };
  for (const { component } of walkContent(page.content)) look(component.when);
  for (const { when } of Object.values(page.rows ?? {})) look(when);
  return [...asked];
}

/** A page as a browser gets it: without what only the service needs, which would tell how the app is made. */
export function pageToSend(page: PageDefinition, held: readonly number[]): PageDefinition {
  const { admit: _, formerAddresses: __, formerNames: ___, group: ____, sampleSets: _____, ...sent } = page;
  return {
    ...sent,
    content: withoutService(page.content),
    // A rule that did not hold says nothing here.
    ...(page.arrival
      ? {
          arrival: page.arrival.map(({ notice }, index) => ({
            when: 'true',
            ...(held.includes(index) && notice !== undefined ? { notice } : {}),
          })),
        }
      : {}),
  };
}

const withoutService = (content: readonly Component[]): Component[] =>
  content.map((component) => {
    const inner = mapInnerContent(component, withoutService);
    return (kindOf(inner)?.toSend?.(inner as never) ?? inner) as Component;
  });
