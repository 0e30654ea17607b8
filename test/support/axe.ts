import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { AxeResults } from 'axe-core';
import type { Page } from 'playwright-core';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe-core finds wrong on the page as it stands, a line each. */
export async function axeProblems(page: Page): Promise<string[]> {
  // Evaluated by the debugger, hence not held up by the page's content security policy.
  await page.evaluate(source);
  const { violations } = await page.evaluate(() => (globalThis as unknown as { axe: { run: () => Promise<AxeResults> } }).axe.run());
  return violations.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any.map(({ message }) => message).join('; ')}`),
  );
}
