/** A guide as the build leaves it. */
export interface DocsPage {
  name: string;
  title: string;
  html: string;
  sections: { id: string; title: string; text: string }[];
}

/** A section of a guide that has every word that was asked for. */
export interface DocsMatch {
  page: DocsPage;
  id: string;
  title: string;
  snippet: string;
}

const mostFound = 40;
const around = 90;

/** Finds the sections that have all words, those with a word in their title first. Capitals do not matter. */
export function searchDocs(pages: readonly DocsPage[], query: string): DocsMatch[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8);
  if (words.length === 0) return [];
  const found: { match: DocsMatch; score: number }[] = [];
  for (const page of pages)
    for (const { id, title, text } of page.sections) {
      const [heading, body] = [title.toLowerCase(), text.toLowerCase()];
      if (!words.every((word) => heading.includes(word) || body.includes(word))) continue;
      const score = words.filter((word) => heading.includes(word)).length;
      const at = Math.max(0, body.indexOf(words[0] ?? '') - around);
      const snippet = `${at > 0 ? '…' : ''}${text.slice(at, at + 2 * around)}${at + 2 * around < text.length ? '…' : ''}`;
      found.push({ match: { page, id, title, snippet }, score });
    }
  return found
    .sort((one, other) => other.score - one.score)
    .slice(0, mostFound)
    .map(({ match }) => match);
}
