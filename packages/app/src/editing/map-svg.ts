import type { AppMap } from './app-map.ts';
import { everyPage } from './app-map.ts';
import { cutText, layOutMap, lineLabel, middleOf, pageHeight, pageWidth, pathThrough } from './map-layout.ts';

const lineHeight = 18;

/** The map of an app as an SVG picture that stands alone; it follows the reader’s choice of a light or dark look. */
export function mapSvg(map: AppMap, title: string): string {
  const { pages, links, width, height } = layOutMap(map);
  const onEvery = map.links.filter(({ from }) => from === everyPage).map(({ to }) => to);
  const notes = onEvery.length === 0 ? [] : [`On every page: ${onEvery.join(', ')}`];
  const whole = Math.ceil(height) + (notes.length === 0 ? 0 : 8 + notes.length * lineHeight);
  const lines = links.map(({ from, to, sends, points }) => {
    const { x, y } = middleOf(points);
    const { text: sent, width: room } = lineLabel(sends);
    const words =
      sends.length === 0
        ? ''
        : `<rect class="paper" x="${rounded(x - room / 2)}" y="${rounded(y - 7)}" width="${String(room)}" height="14"/><text x="${rounded(x)}" y="${rounded(y + 4)}" text-anchor="middle">${escaped(sent)}</text>`;
    return `<g class="link"><title>${escaped(`From ${from} to ${to}${sends.length === 0 ? '' : `: ${sends.join(', ')}`}`)}</title><path d="${pathThrough(points)}" marker-end="url(#tip)"/>${words}</g>`;
  });
  const boxes = pages.map(({ name, title: words, address, gate, unlinked, x, y }) => {
    const kinds = ['page', ...(gate === undefined ? [] : ['gated']), ...(unlinked ? ['alone'] : [])].join(' ');
    const texts = [
      `<text class="title" x="${rounded(x + 9)}" y="${rounded(y + 20)}">${escaped(cutText(words, gate === undefined ? 22 : 14))}</text>`,
      `<text class="address" x="${rounded(x + 9)}" y="${rounded(y + 38)}">${escaped(cutText(address, 27))}</text>`,
      ...(gate === undefined
        ? []
        : [
            `<text class="gate" x="${rounded(x + pageWidth - 8)}" y="${rounded(y + 13)}" text-anchor="end">${escaped(cutText(gate, 12))}</text>`,
          ]),
    ];
    return `<g class="${kinds}"><title>${escaped(`${name}: ${address}${unlinked ? '; nothing leads to it' : ''}`)}</title><rect x="${rounded(x)}" y="${rounded(y)}" width="${String(pageWidth)}" height="${String(pageHeight)}" rx="5"/>${texts.join('')}</g>`;
  });
  const foot = notes.map(
    (note, index) => `<text class="note" x="16" y="${String(Math.ceil(height) + index * lineHeight + 14)}">${escaped(note)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${String(Math.ceil(width))} ${String(whole)}" width="${String(Math.ceil(width))}" height="${String(whole)}" role="img" aria-labelledby="map-title">
<title id="map-title">${escaped(`The pages of ${title} and the links between them`)}</title>
<style>${style}</style>
<defs><marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path class="tip" d="M0 0 L8 4 L0 8 z"/></marker></defs>
<rect class="paper" width="100%" height="100%"/>
${[...lines, ...boxes, ...foot].join('\n')}
</svg>
`;
}

const style = `
svg { --paper: #fbfaf6; --sheet: #fff; --ink: #1c2421; --quiet: #56615b; --edge: #8a948e; --path: #8a4b00; --query: #1b5f8c; }
@media (prefers-color-scheme: dark) { svg { --paper: #14191a; --sheet: #1d2425; --ink: #e8ece9; --quiet: #a5b0aa; --edge: #6d7873; --path: #e0a458; --query: #7fbfe6; } }
.paper { fill: var(--paper); } .page rect { fill: var(--sheet); stroke: var(--edge); stroke-width: 1.5; }
.gated rect { stroke: var(--path); stroke-width: 2.5; } .alone rect { stroke-dasharray: 5 4; }
text { fill: var(--ink); font: 13px system-ui, sans-serif; } .title { font-weight: 600; }
.address { font: 10px ui-monospace, monospace; fill: var(--quiet); } .gate { font-size: 10px; fill: var(--path); } .note { font-size: 11px; fill: var(--quiet); }
.link path { fill: none; stroke: var(--query); stroke-width: 1.3; } .tip { fill: var(--query) !important; stroke: none !important; }
.link text { font-size: 10.5px; fill: var(--query); }
`;

const rounded = (number: number): string => String(Math.round(number * 10) / 10);
const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
