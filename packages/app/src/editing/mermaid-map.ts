import { everyPage, type AppMap } from './app-map.ts';

/** The map of an app as the text of a Mermaid flowchart. Links from every page (the navigation) come from a node of that name. */
export function mermaidMap({ pages, links }: AppMap): string {
  const ids = new Map<string, string>();
  const id = (name: string) => {
    const known = ids.get(name) ?? `n${String(ids.size)}`;
    ids.set(name, known);
    return known;
  };
  // Mermaid reads entities in quoted labels.
  const label = (text: string) => `"${text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;')}"`;
  const nodes = pages.map(({ name, title, address, gate }) => {
    const text = label(`${title} — ${address}`);
    return `  ${id(name)}${gate === undefined ? `[${text}]` : `[[${text}]]`}\n`;
  });
  const others = [...new Set(links.flatMap(({ from, to }) => [from, to]))].filter(
    (name) => name !== '' && !pages.some((page) => page.name === name),
  );
  const edges = links
    .filter(({ from, to }) => from !== '' && to !== '')
    .map(({ from, to, sends }) => `  ${id(from)} -->${sends.length > 0 ? `|${label(sends.join(', '))}|` : ''} ${id(to)}\n`);
  return [
    'flowchart LR\n',
    ...nodes,
    ...others.map((name) => `  ${id(name)}([${label(name === everyPage ? 'every page' : name)}])\n`),
    ...edges,
  ].join('');
}
