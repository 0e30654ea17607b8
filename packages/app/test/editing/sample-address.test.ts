import { checkAppFile } from '@pallmist/app';
import { compileApp, readAddress } from '@pallmist/app/address';
import { missingSamples, sampleAddress } from '@pallmist/app/editing';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const garden = checkAppFile(readFileSync(new URL('../../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8')).compiled!;

const shop = (mount: string) =>
  compileApp({
    app: 'shop',
    mount,
    pages: {
      pot: {
        address: '/pots/{pot}{?q,page}',
        parameters: { pot: { type: 'integer', min: 1, sample: 7 }, q: { type: 'text' }, page: { type: 'integer', min: 1 } },
      },
    },
  }).app;

describe('the address that shows a page while you build it', () => {
  it('leads back to every page of the garden, without an error', () => {
    const withSamples = [...garden.pages.values()].filter(({ parameters }) =>
      parameters.every(({ required, declaration }) => !required || declaration.sample !== undefined),
    );
    expect(withSamples.length).toBeGreaterThan(5);
    for (const { name: page } of withSamples) {
      const address = sampleAddress(garden, page, undefined);
      expect(address, page).toBeDefined();
      const outcome = readAddress(garden, address!);
      expect(outcome).toMatchObject({ page, problems: [] });
    }
  });

  it.each(['/shop', '/'])('holds each text of a sample set, right or wrong, for an app at %s', (mount) => {
    const app = shop(mount);
    fc.assert(
      fc.property(
        fc.oneof(fc.integer({ min: 1, max: 999 }).map(String), fc.constantFrom('many', '0', '-1', 'a/b', '?', 'é #')),
        fc.string({ minLength: 1, maxLength: 12, unit: 'grapheme' }),
        fc.constantFrom('2', 'two', '0', '1 & 2'),
        (pot, q, page) => {
          const address = sampleAddress(app, 'pot', { pot, q, page })!;
          const url = new URL(address, 'https://garden.example');
          expect(decodeURIComponent(url.pathname)).toBe(`${mount === '/' ? '' : mount}/pots/${pot}`);
          expect(url.searchParams.get('q')).toBe(q);
          expect(url.searchParams.get('page')).toBe(page);
        },
      ),
    );
  });

  it('is missing what a required parameter without a sample needs: a value that would do, or a record', () => {
    const { compiled } = checkAppFile(`pallmist: 1
app: shop
title: Shop
mount: /shop
choices: { light: { sun: Sun, shade: Shade } }
collections: { pots: { keyField: code, fields: { code: { type: text }, slug: { type: text, unique: true } } } }
pages:
  pot:
    title: Pot
    address: /{pot}/{light}/{row}{?q,n,of}
    parameters:
      pot: { type: record, of: pots, label: Which pot }
      light: { type: choice, of: light }
      row: { type: integer, min: 3, sample: 4 }
      q: { type: text, required: true }
      n: { type: number, required: true, min: 0.5 }
      of: { type: record, of: pots, by: slug, required: true }
    content: [{ show: text, text: "{param.pot} {param.light} {param.row} {param.q} {param.n} {param.of}" }]
`);
    expect(missingSamples(compiled!, 'pot')).toEqual([
      { name: 'pot', label: 'Which pot', value: undefined, collection: 'pots', by: undefined },
      { name: 'light', label: 'light', value: 'sun', collection: undefined, by: undefined },
      { name: 'q', label: 'q', value: undefined, collection: undefined, by: undefined },
      { name: 'n', label: 'n', value: 0.5, collection: undefined, by: undefined },
      { name: 'of', label: 'of', value: undefined, collection: 'pots', by: 'slug' },
    ]);
    expect(missingSamples(compiled!, 'nowhere')).toEqual([]);
  });

  it('is not there for a page that does not exist, or without a sample that the path needs', () => {
    expect(sampleAddress(garden, 'nowhere', undefined)).toBeUndefined();
    expect(sampleAddress(shop('/shop'), 'pot', { page: 'two' })).toBeUndefined();
  });
});
