import { expect, it } from 'vitest';
import { mapApp } from '../src/editing/index.ts';
import { cutText, layOutMap, pageHeight, pageWidth } from '../src/editing/map-layout.ts';
import { mapSvg } from '../src/editing/map-svg.ts';
import { definition } from './garden.ts';

const map = mapApp(definition);

it('gives each page a place of its own', () => {
  const { pages, width, height } = layOutMap(map);
  for (const [index, one] of pages.entries()) {
    expect(one.x >= 0 && one.y >= 0 && one.x + pageWidth <= width && one.y + pageHeight <= height).toBe(true);
    for (const other of pages.slice(index + 1))
      expect(Math.abs(one.x - other.x) >= pageWidth || Math.abs(one.y - other.y) >= pageHeight, `${one.name} ${other.name}`).toBe(true);
  }
});

it('draws titles as text, whatever stands in them', () => {
  const [first, ...others] = map.pages;
  if (first === undefined) throw new Error('The garden has no page.');
  const svg = mapSvg({ ...map, pages: [{ ...first, title: '<script>&"' }, ...others] }, '</title><b>');
  expect(svg).toContain('&lt;script>&amp;&quot;');
  expect(svg).not.toMatch(/<script|<b>|NaN|undefined/);
});

it('cuts a text between characters', () => {
  expect(cutText('🌿🌿🌿', 2)).toBe('🌿…');
  expect(cutText('fern', 4)).toBe('fern');
});
