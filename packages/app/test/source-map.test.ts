import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { parse } from 'yaml';
import { parseSource } from '../src/definition/source-map.ts';
import { gardenSource } from './garden.ts';

const demo = readFileSync(new URL('../../../demo/quillmoor/app.yaml', import.meta.url), 'utf8');

it.each([
  ['the garden', gardenSource],
  ['the demo', demo],
  [
    'scalars of every kind',
    'a: 1990-01-01\nb: 0x1f\nc: 007\nd: yes\ne: ~\nf: 1e3\ng: "x"\nh: >-\n  folded\n  text\ni: |\n  kept\nj: 2026-03-21T11:00:00Z\nk: 12:30\nl: .5\nm: 0o17\nn: =\no: <<\n',
  ],
  ['anchors', 'a: &x { b: 1 }\nc: *x\n'],
])('the quick parser and the careful one agree on %s', (_, text) => {
  expect(parseSource(text).data).toEqual(parse(text));
});

it('aliases that unfold without end are refused', () => {
  const bomb =
    'a: &a [x, x, x, x, x, x, x, x, x]\n' +
    'bcdefgh'.replace(
      /./g,
      (name) =>
        `${name}: &${name} [${Array(9)
          .fill(`*${String.fromCharCode(name.charCodeAt(0) - 1)}`)
          .join(', ')}]\n`,
    );
  expect(parseSource(bomb).problems[0]?.code).toBe('yaml-aliases');
});
