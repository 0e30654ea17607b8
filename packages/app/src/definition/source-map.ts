import { CORE_SCHEMA, load } from 'js-yaml';
import { LineCounter, parseDocument, isMap, isScalar, type Document, type Node } from 'yaml';
import { fromPointer, type Problem } from '@pallmist/address/declare';
import { modernize } from './former-keys.ts';
import { yamlHint } from './common-slips.ts';

/** Largest app file that is parsed, in characters. */
const largestSource = 20_000_000;

/** An app file's text as data, in today's form whatever the text's, with the way back from a place in the data to the place in the text. */
export interface Source {
  data: unknown;
  problems: Problem[];
  /** Fills in line and column (1-based) of a problem's pointer. */
  locate(problem: Problem): Problem;
}

/**
 * Parses YAML 1.2 (of which JSON is a part). Anchors are understood; aliases cannot blow up memory. What is well-formed
 * is parsed by the quick parser; the one that knows places is asked only when there is something to point at.
 */
export function parseSource(text: string): Source {
  if (text.length > largestSource) {
    const problem: Problem = {
      code: 'file-too-large',
      severity: 'error',
      message: `The app file is larger than ${String(largestSource)} characters.`,
      hint: 'Split the app, or move data into CSV files.',
    };
    return { data: undefined, problems: [problem], locate: (given) => given };
  }
  let placed: ReturnType<typeof parseWithPlaces> | undefined;
  const withPlaces = () => (placed ??= parseWithPlaces(text));
  // Only the careful parser bounds what aliases unfold to.
  const quick = anchor.test(text) ? undefined : parseQuickly(text);
  const { data, problems } = quick ?? withPlaces();
  const modern = modernize(data);
  return {
    data,
    problems: [...problems, ...modern.problems],
    locate(problem) {
      if (problem.pointer === undefined || problem.line !== undefined) return problem;
      const { document, lines } = withPlaces();
      const { line, col } = lines.linePos(offsetOf(document, modern.placeInText(fromPointer(problem.pointer))));
      return { ...problem, line, column: col };
    },
  };
}

const anchor = /(?:^|[\s[{,:-])&[^\s]/;

function parseQuickly(text: string): { data: unknown; problems: Problem[] } | undefined {
  try {
    return { data: load(text, { schema: CORE_SCHEMA }), problems: [] };
  } catch {
    return undefined;
  }
}

function parseWithPlaces(text: string): { document: Document; lines: LineCounter; data: unknown; problems: Problem[] } {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false, uniqueKeys: true });
  // What follows the first error is mostly a consequence of it.
  const problems = [...document.errors.slice(0, 1), ...document.warnings].map((error): Problem => {
    const { line, col } = lines.linePos(error.pos[0]);
    const known = yamlHint(error.message);
    return {
      code: 'yaml-syntax',
      severity: error.name === 'YAMLWarning' ? 'warning' : 'error',
      // The parser's own words only where there are no better ones.
      message: `The file is not well-formed YAML${known === undefined ? `: ${error.message.replace(/\s+/g, ' ')}` : '.'}`,
      hint: known ?? 'Look at the indentation, quotes and braces just before this place.',
      pointer: '',
      line,
      column: col,
    };
  });
  let data: unknown;
  try {
    if (document.errors.length === 0) data = document.toJS({ maxAliasCount: 100 });
  } catch (error) {
    problems.push({
      code: 'yaml-aliases',
      severity: 'error',
      message: error instanceof Error ? error.message : 'The aliases cannot be resolved.',
      hint: 'Write the repeated parts out.',
      pointer: '',
    });
  }
  return { document, lines, data, problems };
}

/** Where in the text the deepest part of a path begins that is there at all. */
function offsetOf(document: Document, path: string[]): number {
  let node: unknown = document.contents;
  let offset = (node as Node | null)?.range?.[0] ?? 0;
  for (const key of path) {
    const pair = isMap(node) ? node.items.find((item) => isScalar(item.key) && String(item.key.value) === key) : undefined;
    if (pair) {
      offset = (pair.key as Node).range?.[0] ?? offset;
      node = pair.value;
      continue;
    }
    const next: unknown =
      document.contents === null ? undefined : (node as { get?: (key: number, keep: true) => unknown } | null)?.get?.(Number(key), true);
    if (next === undefined || next === null) break;
    node = next;
    offset = (node as Node).range?.[0] ?? offset;
  }
  return offset;
}
