import { styleOf, withStyle, type TextStyle } from './text-style.ts';
import { type Document, Document as YamlDocument, isMap, isScalar, type Pair, Scalar, YAMLMap } from 'yaml';

/** Maps whose entries are long and many: each of them is a piece of its own. */
const ofPieces = new Set(['choices', 'collections', 'blocks', 'pages', 'mails', 'words']);

/** A map of the file that is written as a block, entry below entry. */
interface BlockMap {
  map: YAMLMap;
  /** How far its keys are indented, in characters. */
  indent: number;
  /** The text before its first entry. */
  head: string;
  /** The text of each entry, with the comments and blank lines before it, and what follows the last one. */
  pieces: Map<Pair, string>;
  /** Where each entry stood in the source. */
  places: Map<Pair, { from: number; to: number }>;
}

/**
 * The text of a YAML file in pieces: what a change does not touch stays as it was written, to the last blank, and only what it
 * touches is written again.
 */
export class TextPieces {
  readonly #document: Document;
  readonly #root: BlockMap;
  readonly #inner = new Map<YAMLMap, BlockMap>();

  readonly #style: TextStyle;

  private constructor(document: Document, root: BlockMap, style: TextStyle) {
    this.#document = document;
    this.#root = root;
    this.#style = style;
  }

  /** @returns undefined where the file is not written in blocks from its beginning: then it is written again as a whole */
  static of(document: Document, source: string): TextPieces | undefined {
    if (!isMap(document.contents) || document.contents.flow === true || document.directives?.docStart === true || source.includes('\r'))
      return undefined;
    const root = blockMap(document.contents, source, 0, source.length);
    if (root === undefined) return undefined;
    const text = new TextPieces(document, root, styleOf(source));
    for (const pair of root.map.items) {
      const { value } = pair;
      if (!isMap(value) || value.flow === true || !ofPieces.has(keyOf(pair)) || value.items.length === 0) continue;
      const { from, to } = root.places.get(pair) ?? { from: 0, to: 0 };
      const inner = blockMap(value, source, from, to);
      if (inner) text.#inner.set(value, inner);
    }
    return text;
  }

  /** Notes that something changes at a path: its piece is written again. */
  touch(path: readonly (string | number)[]): void {
    const [first, second] = path;
    const pair = entry(this.#root.map, first);
    const inner = isMap(pair?.value) ? this.#inner.get(pair.value) : undefined;
    if (inner === undefined || second === undefined) {
      if (pair) this.#root.pieces.delete(pair);
      return;
    }
    const below = entry(inner.map, second);
    if (below) inner.pieces.delete(below);
  }

  /** The text as the document says it now. */
  get text(): string {
    const { map, head } = this.#root;
    if (this.#document.contents !== map) return withStyle(this.#document.toString({ lineWidth: this.#style.lineWidth }), this.#style);
    return head + map.items.map((pair) => this.#textOf(pair)).join('');
  }

  #textOf(pair: Pair): string {
    const inner = isMap(pair.value) ? this.#inner.get(pair.value) : undefined;
    if (inner !== undefined && inner.map.items.length > 0 && this.#root.pieces.has(pair)) {
      const entries = inner.map.items.map((below) => inner.pieces.get(below) ?? written(below, inner.indent, this.#style));
      return inner.head + entries.join('');
    }
    if (inner !== undefined) return written(pair, 0, this.#style);
    return this.#root.pieces.get(pair) ?? written(pair, 0, this.#style);
  }
}

/** Cuts the text of a map between two places of the source into its entries. */
function blockMap(map: YAMLMap, source: string, from: number, to: number): BlockMap | undefined {
  const starts: number[] = [];
  let indent: number | undefined;
  for (const pair of map.items) {
    const at = isScalar(pair.key) ? pair.key.range?.[0] : undefined;
    if (at === undefined) return undefined;
    const line = source.lastIndexOf('\n', at - 1) + 1;
    // An anchor, a tag or another key on the same line: not written entry below entry.
    if (source.slice(line, at).trim() !== '') return undefined;
    indent ??= at - line;
    if (indent !== at - line) return undefined;
    starts.push(starts.length === 0 ? line : withCommentsBefore(source, line, indent));
  }
  const pieces: BlockMap['pieces'] = new Map();
  const places: BlockMap['places'] = new Map();
  for (const [index, pair] of map.items.entries()) {
    const place = { from: starts[index] ?? from, to: starts[index + 1] ?? to };
    places.set(pair, place);
    pieces.set(pair, ended(source.slice(place.from, place.to)));
  }
  return indent === undefined ? undefined : { map, indent, head: source.slice(from, starts[0]), pieces, places };
}

/** Where the comments and blank lines begin that stand right before a line and belong to it. */
function withCommentsBefore(source: string, line: number, indent: number): number {
  let start = line;
  while (start > 0) {
    const before = source.lastIndexOf('\n', start - 2) + 1;
    const text = source.slice(before, start - 1);
    const isComment = /^\s*#/.test(text) && text.length - text.trimStart().length <= indent;
    if (text.trim() !== '' && !isComment) break;
    start = before;
  }
  return start;
}

const ended = (text: string) => (text === '' || text.endsWith('\n') ? text : `${text}\n`);

/** An entry, written again at its indentation, with its comments and the blank line before it. */
function written(pair: Pair, indent: number, style: TextStyle): string {
  // Behind another entry, since a blank line is written only between two.
  const map = new YAMLMap();
  map.items.push(new YamlDocument().createPair('x', 1), pair);
  const document = new YamlDocument();
  let contents: YAMLMap = map;
  if (indent > 0) {
    contents = new YAMLMap();
    contents.items.push(new YamlDocument().createPair('x', null));
    (contents.items[0] as Pair).value = map;
  }
  document.contents = contents;
  const text = document.toString({ lineWidth: style.lineWidth, indent: indent > 0 ? indent : 2, singleQuote: style.singleQuotes });
  return withStyle(text, style)
    .split('\n')
    .slice(indent > 0 ? 2 : 1)
    .join('\n');
}

const keyOf = ({ key }: { key: unknown }): string => (key instanceof Scalar ? String(key.value) : String(key));
const entry = (map: YAMLMap, key: unknown): Pair | undefined => map.items.find((pair) => keyOf(pair) === String(key));
