import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { checkAppFile } from '../src/index.ts';
import { sourceOf, type Mistake } from './mistakes.ts';

const mistakes = parse(readFileSync(new URL('../specification/mistakes.yaml', import.meta.url), 'utf8')) as Mistake[];

describe('the check tells you what is wrong and what to write instead', () => {
  it.each(mistakes)('$mistake', (given) => {
    const { problems } = checkAppFile(sourceOf(given));
    const { code, message, hint } =
      problems.find(({ severity }) => severity === 'error') ?? problems.find((one) => one.code === given.code) ?? {};
    expect({ code, says: [message, hint].filter((text) => text !== undefined).join(' ') }).toEqual({ code: given.code, says: given.says });
    expect(given.says).not.toMatch(/\bzod\b|invalid|unrecognized|undefined|NaN/i);
  });

  it('reports one error for one mistake', () => {
    for (const given of mistakes) {
      const errors = checkAppFile(sourceOf(given)).problems.filter(({ severity }) => severity === 'error');
      expect([given.mistake, errors.length]).toEqual([given.mistake, given.code === 'doubled-braces' ? 0 : 1]);
    }
  });
});
