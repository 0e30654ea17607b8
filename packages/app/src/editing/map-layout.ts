import dagre from '@dagrejs/dagre';
import { everyPage, type AppMap, type MapLink, type MapPage } from './app-map.ts';

/** The part of the layout library that is used here; its own types cannot be found by Node’s rules for modules. */
interface LayoutGraph {
  setGraph(label: object): void;
  setDefaultEdgeLabel(make: () => object): void;
  setNode(name: string, label: object): void;
  setEdge(from: string, to: string, label: object, name: string): void;
  graph(): { width?: number; height?: number };
  node(name: string): { x: number; y: number };
  edge(from: string, to: string, name: string): { points: { x: number; y: number }[] };
}
const { graphlib, layout } = dagre as unknown as {
  graphlib: { Graph: new (options: { multigraph: boolean }) => LayoutGraph };
  layout: (graph: LayoutGraph) => void;
};

/** A page with its place on the picture, in pixels. */
export interface PlacedPage extends MapPage {
  x: number;
  y: number;
}

/** A link with the points that its line goes through. */
export interface PlacedLink extends MapLink {
  points: { x: number; y: number }[];
}

/** A map that is laid out. */
export interface MapPicture {
  pages: PlacedPage[];
  links: PlacedLink[];
  width: number;
  height: number;
}

export const pageWidth = 176;
export const pageHeight = 52;

/** Lays the map of an app out. Links that stand on every page, and from mails, are no lines: they would cross everything. */
export function layOutMap(map: AppMap): MapPicture {
  const graph = new graphlib.Graph({ multigraph: true });
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 84, marginx: 16, marginy: 16 });
  graph.setDefaultEdgeLabel(() => ({}));
  const names = new Set(map.pages.map(({ name }) => name));
  for (const page of map.pages) graph.setNode(page.name, { width: pageWidth, height: pageHeight });
  const drawn = map.links.filter(({ from, to }) => from !== everyPage && names.has(from) && names.has(to) && from !== to);
  // What a link sends stands on its line, which keeps no room for it: else the picture would be twice as wide.
  for (const link of drawn) graph.setEdge(link.from, link.to, { width: 0, height: 0 }, `${link.from} ${link.to}`);
  layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    pages: map.pages.map((page) => {
      const { x, y } = graph.node(page.name);
      return { ...page, x: x - pageWidth / 2, y: y - pageHeight / 2 };
    }),
    links: drawn.map((link) => ({
      ...link,
      points: graph.edge(link.from, link.to, `${link.from} ${link.to}`).points,
    })),
    width: Math.max(width, 200),
    height: Math.max(height, 80),
  };
}

/** A point on a line, half way, where what a link sends can stand. */
export function middleOf(points: readonly { x: number; y: number }[]): { x: number; y: number } {
  const at = Math.max(0, Math.floor(points.length / 2) - 1);
  const [one, other] = [points[at] ?? { x: 0, y: 0 }, points[at + 1] ?? points[at] ?? { x: 0, y: 0 }];
  return { x: (one.x + other.x) / 2, y: (one.y + other.y) / 2 };
}

/** Characters of what stands on a line. */
const mostOnLine = 22;

/** The names of parameters as they stand on a line, and the pixels that they take: a letter of this size is some six wide. */
export function lineLabel(sends: readonly string[]): { text: string; width: number } {
  const text = cutText(sends.join(', '), mostOnLine);
  return { text, width: [...text].length * 6 };
}

/** A text that is cut to so many characters. */
export function cutText(text: string, length: number): string {
  const letters = [...text];
  return letters.length > length ? `${letters.slice(0, length - 1).join('')}…` : text;
}

/** The path of a line through points, with rounded corners. */
export function pathThrough(points: readonly { x: number; y: number }[]): string {
  const [first, ...rest] = points;
  if (first === undefined) return '';
  const last = rest.at(-1) ?? first;
  const bends = rest.slice(0, -1).map((point, index) => {
    const next = rest[index + 1] ?? last;
    return ['Q', point.x, point.y, (point.x + next.x) / 2, (point.y + next.y) / 2].join(' ');
  });
  return ['M', first.x, first.y, ...bends, 'L', last.x, last.y].join(' ');
}
