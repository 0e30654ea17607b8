import dagre from '@dagrejs/dagre';
import { everyPage, type AppMap, type MapLink, type MapPage } from '@pallmist/app/editing';

/** A page with its place on the picture, in pixels. */
export interface PlacedPage extends MapPage {
  x: number;
  y: number;
}

/** A link with the points that its line goes through. */
export interface PlacedLink extends MapLink {
  points: { x: number; y: number }[];
}

export interface Picture {
  pages: PlacedPage[];
  links: PlacedLink[];
  width: number;
  height: number;
}

export const pageWidth = 176;
export const pageHeight = 52;

/** Lays the map of an app out. Links that stand on every page, and from mails, are no lines: they would cross everything. */
export function layOut(map: AppMap): Picture {
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 84, marginx: 16, marginy: 16 });
  graph.setDefaultEdgeLabel(() => ({}));
  const names = new Set(map.pages.map(({ name }) => name));
  for (const page of map.pages) graph.setNode(page.name, { width: pageWidth, height: pageHeight });
  const drawn = map.links.filter(({ from, to }) => from !== everyPage && names.has(from) && names.has(to) && from !== to);
  // What a link sends stands on its line, which keeps no room for it: else the picture would be twice as wide.
  for (const link of drawn) graph.setEdge(link.from, link.to, { width: 0, height: 0 }, `${link.from} ${link.to}`);
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph() as { width?: number; height?: number };
  return {
    pages: map.pages.map((page) => {
      const { x, y } = graph.node(page.name) as { x: number; y: number };
      return { ...page, x: x - pageWidth / 2, y: y - pageHeight / 2 };
    }),
    links: drawn.map((link) => ({
      ...link,
      points: (graph.edge(link.from, link.to, `${link.from} ${link.to}`) as { points: { x: number; y: number }[] }).points,
    })),
    width: Math.max(width, 200),
    height: Math.max(height, 80),
  };
}

/** The path of a line through points, with rounded corners. */
export function pathThrough(points: readonly { x: number; y: number }[]): string {
  const [first, ...rest] = points;
  if (first === undefined) return '';
  const last = rest.at(-1) ?? first;
  const bends = rest.slice(0, -1).map((point, index) => {
    const next = rest[index + 1] ?? last;
    return `Q ${point.x} ${point.y} ${(point.x + next.x) / 2} ${(point.y + next.y) / 2}`;
  });
  return `M ${first.x} ${first.y} ${bends.join(' ')} L ${last.x} ${last.y}`;
}
