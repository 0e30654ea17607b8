import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults } from 'axe-core';
import type { Page } from 'playwright-core';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Rules that depend on colours and widths; what all others look at is the same in each theme. */
export const rulesOfTheLook: readonly string[] = ['color-contrast', 'scrollable-region-focusable', 'link-in-text-block'];

/**
 * What axe-core finds wrong on the page as it stands, a line each.
 * @param rules only these; all that are on by default when left out
 */
export async function axeProblems(page: Page, rules?: readonly string[]): Promise<string[]> {
  // Evaluated by the debugger, hence not held up by the page's content security policy.
  await page.evaluate(source);
  const { violations } = await page.evaluate(
    (runOnly) => (globalThis as unknown as { axe: { run: (options: object) => Promise<AxeResults> } }).axe.run(runOnly ? { runOnly } : {}),
    rules,
  );
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any.map(({ message }) => message).join('; ')}`),
  );
}
