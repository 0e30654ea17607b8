import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parse } from 'yaml';
import { checkAppFile } from '../src/index.ts';

interface Mistake {
  mistake: string;
  page?: string;
  content?: string;
  code: string;
  says: string;
}
const mistakes = parse(readFileSync(new URL('../specification/mistakes.yaml', import.meta.url), 'utf8')) as Mistake[];

const head = `pallmist: 1
app: shed
title: Shed
mount: /shed
choices: { tab: { one: One, two: Two } }
collections:
  plants: { keyField: code, fields: { code: { type: text }, name: { type: text }, day: { type: date } } }
pages:
  home: { title: Home, address: /, content: [{ show: link, text: List, to: { page: list } }] }
  list:
`;
const page = `title: List
address: /list{?tab,q,n}
parameters: { tab: { type: choice, of: tab }, q: { type: text }, n: { type: integer, default: 1 } }
content:
  `;
const sourceOf = ({ page: whole, content }: Mistake) =>
  head +
  (whole ?? page + (content ?? ''))
    .split('\n')
    .map((line) => `    ${line}\n`)
    .join('');

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
