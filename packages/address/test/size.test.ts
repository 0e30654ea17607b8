import { expect, it } from 'vitest';
import { bundle, gzipped, using } from '../../../bench/address/bundle.mjs';

it.each([
  ['three', 'three', 4350],
  ['easy', 'easy', 5140],
  ['filter-list', 'filterList', 6144],
])('reading and writing the page %s takes a browser few bytes, minified and gzipped', async (file, name, most) => {
  expect(gzipped(await bundle(using(file, name)))).toBeLessThanOrEqual(most);
});

it('a program ships only the types that it names, and no checks of declarations', async () => {
  const code = await bundle(using('three', 'three'));
  for (const left of ['not-a-date', 'empty-range', 'DeclarationError', 'attribute-without-effect']) expect(code).not.toContain(left);
});
