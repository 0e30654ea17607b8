import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileApp, parseTemplate, readAddress, templateParts } from '../src/index.ts';
import { often } from '../../../test/support/often.ts';

describe('an address template', () => {
  it('is literals, whole segments, an optional last one, and a query', () => {
    expect(parseTemplate('/specimens/{specimen}/notes{/note}{?tab,zone*}')).toEqual({
      template: {
        segments: [
          { literal: 'specimens' },
          { parameter: 'specimen', optional: false },
          { literal: 'notes' },
          { parameter: 'note', optional: true },
        ],
        query: ['tab', 'zone'],
        repeated: new Set(['zone']),
      },
      problems: [],
    });
    for (const text of ['/', '/{?q}', '{/page}', '/a.b/c_d/e-f', '/a/~x'.slice(0, 2)])
      expect(parseTemplate(text).problems, text).toEqual([]);
  });

  it.each([
    ['specimens', 'template-start'],
    ['/specimens/', 'template-empty-segment'],
    ['/a//b', 'template-empty-segment'],
    ['/a/{b', 'template-part-segment'],
    ['/a/x{b}', 'template-part-segment'],
    ['/a/{+b}', 'template-operator'],
    ['/a/{#b}', 'template-operator'],
    ['/{?a}/b', 'template-operator'],
    ['/{/a}/b', 'template-part-segment'],
    ['/a b', 'template-literal'],
    ['/é', 'template-literal'],
    ['/..', 'template-literal'],
    ['/%41', 'template-literal'],
    ['/~sign-out', 'template-reserved'],
    ['/{~wanted}', 'reserved-name'],
    ['/{?~why}', 'reserved-name'],
    ['/{1a}', 'bad-name'],
    ['/{?}', 'bad-name'],
    ['/{a}/{a}', 'repeated-name'],
    ['/{a}{?a}', 'repeated-name'],
    ['/a'.repeat(17), 'template-long'],
  ])('%s is refused: %s', (text, code) => {
    const { problems } = parseTemplate(text);
    expect(problems.map((problem) => problem.code)).toContain(code);
    expect(problems.every(({ hint }) => hint !== undefined)).toBe(true);
  });

  it('is never the end of the world, whatever it says', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('/', '{', '}', '?', ',', '*', 'a', '~', '..', 'é', '+'), { maxLength: 20 }), (pieces) => {
        const text = pieces.join('');
        expect(templateParts(text).length).toBeLessThanOrEqual(text.length * 2);
        const { app } = compileApp({ app: 'x', mount: '/', pages: { p: { address: text } } });
        readAddress(app, '/a/a?a=1');
      }),
      { numRuns: often(1500) },
    );
  });
});

describe('finding a page', () => {
  const { app, problems } = compileApp({
    app: 'x',
    mount: '/',
    pages: {
      root: { address: '/' },
      literal: { address: '/a/b' },
      first: { address: '/a/{x}', parameters: { x: { type: 'text' } } },
      second: { address: '/{y}/c', parameters: { y: { type: 'text' } } },
      deep: { address: '/{y}/{z}/d', parameters: { y: { type: 'text' }, z: { type: 'text' } } },
      optional: { address: '/o{/z}', parameters: { z: { type: 'text' } } },
    },
  });

  it.each([
    ['/', 'root'],
    ['', 'root'],
    ['/a/b', 'literal'],
    ['/a/%62', 'literal'],
    ['/a/x', 'first'],
    ['/a/c', 'first'],
    ['/b/c', 'second'],
    ['/a/b/d', 'deep'],
    ['/o', 'optional'],
    ['/o/', 'optional'],
    ['/o/1', 'optional'],
    ['/o/1/2', undefined],
    ['/a', undefined],
    ['//a/b', undefined],
    ['/a//b', undefined],
  ])('%s is %s', (address, page) => {
    expect(problems).toEqual([]);
    expect(readAddress(app, address === '//a/b' ? 'http://x//a/b' : address).page).toBe(page);
  });

  it('takes no longer for many pages than for few, in steps, and finds each of them', () => {
    const pages = Object.fromEntries(
      Array.from({ length: 3000 }, (_, index) => [
        `p${index}`,
        { address: `/s${index}/{id}`, parameters: { id: { type: 'text' as const } } },
      ]),
    );
    const many = compileApp({ app: 'x', mount: '/m', pages }).app;
    for (let index = 0; index < 3000; index += 7) expect(readAddress(many, `/m/s${index}/x`).page).toBe(`p${index}`);
  });
});
