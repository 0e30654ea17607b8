import { expect, it } from 'vitest';
import { littleApp } from '../support/little-app.ts';
import { littleStory } from '../support/little-story.ts';

const source = littleApp({
  more: `language: tongue
choices: { tongues: { ar: العربية, he: עברית, en: English }, kind: { fern: سرخس, palm: ${'نخلة طويلة '.repeat(6)}, moss: Moss 🌿 } }
parameters: { tongue: { type: choice, of: tongues, default: ar } }`,
  collections: '  things: { keyField: code, fields: { code: { type: text }, kind: { type: choice, of: kind } } }',
  pages: `  home:
    title: Home
    address: /
    rows: { found: { from: things } }
    content: [{ show: bar-chart, rows: found, field: kind, label: Kinds }]
`,
});
const { open, service } = littleStory(source);

it.each(['ar', 'he', 'en'])('a bar chart stands in its frame, its texts at the edge where they begin, in %s', async (tongue) => {
  for (const [index, kind] of ['fern', 'fern', 'palm', 'moss'].entries())
    await service().owner('POST', '/apps/little/collections/things/records', { record: { code: `${tongue}${String(index)}`, kind } });
  const page = await open(`/little${tongue === 'ar' ? '' : `?tongue=${tongue}`}`);
  const drawn = await page.evaluate(() => {
    const box = (element: Element) => {
      const { left, right } = element.getBoundingClientRect();
      return { left, right };
    };
    const parts = (selector: string) => [...document.querySelectorAll(`figure svg ${selector}`)].map(box);
    return {
      frame: box(document.querySelector('figure') ?? document.body),
      texts: parts('text:not(.count)'),
      counts: parts('text.count'),
      bars: parts('rect.bar'),
    };
  });
  const { frame, texts, counts, bars } = drawn;
  expect([texts.length, counts.length, bars.length]).toEqual([3, 3, 3]);
  for (const { left, right } of [...texts, ...counts, ...bars]) {
    expect(left).toBeGreaterThanOrEqual(frame.left);
    expect(right).toBeLessThanOrEqual(frame.right);
  }
  // Texts and bars begin at one edge, and numbers end at the other.
  const begins = tongue === 'en' ? 'left' : 'right';
  for (const [index, { [begins]: edge }] of texts.entries()) {
    expect(Math.abs(edge - (bars[index]?.[begins] ?? 0))).toBeLessThan(2);
    expect(Math.abs(edge - (counts[index]?.[begins] ?? 0))).toBeGreaterThan(100);
  }
});
