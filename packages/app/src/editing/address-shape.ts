import { formatTemplate, parseTemplate, type PatchOperation, toPointer } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';
import { changeAddress } from '../definition/rename/change-address.ts';
import { waysIn } from '../definition/rename/places.ts';

/** One piece of an address template, as a builder shapes it. */
export type AddressPiece =
  { kind: 'fixed'; text: string } | { kind: 'path'; name: string; optional: boolean } | { kind: 'query'; name: string; repeated: boolean };

/** The pieces of an address template (RFC 6570), the path first. */
export function piecesOf(address: string): AddressPiece[] {
  const { template } = parseTemplate(address);
  return [
    ...template.segments.map((segment): AddressPiece =>
      'parameter' in segment
        ? { kind: 'path', name: segment.parameter, optional: segment.optional }
        : { kind: 'fixed', text: segment.literal },
    ),
    ...template.query.map((name): AddressPiece => ({ kind: 'query', name, repeated: template.repeated.has(name) })),
  ];
}

/** The address template of pieces; those of the path come first whatever their order. */
export function templateOf(pieces: readonly AddressPiece[]): string {
  const path = pieces.filter((piece) => piece.kind !== 'query');
  const query = pieces.filter((piece) => piece.kind === 'query');
  return formatTemplate({
    segments: path.map((piece, index) =>
      piece.kind === 'fixed' ? { literal: piece.text } : { parameter: piece.name, optional: piece.optional && index === path.length - 1 },
    ),
    query: query.map(({ name }) => name),
    repeated: new Set(query.filter(({ repeated }) => repeated).map(({ name }) => name)),
  });
}

/**
 * Moves a piece one step; over the “?” it changes between path and query. A fixed text stays in the path.
 * @returns the pieces as they are where the step leads nowhere
 */
export function movePiece(pieces: readonly AddressPiece[], index: number, step: -1 | 1): AddressPiece[] {
  const piece = pieces[index];
  if (piece === undefined) return [...pieces];
  const pathLength = pieces.filter(({ kind }) => kind !== 'query').length;
  const others = pieces.filter((_, at) => at !== index);
  if (piece.kind === 'query' && step === -1 && index === pathLength)
    return [...others.slice(0, index), { kind: 'path', name: piece.name, optional: false }, ...others.slice(index)];
  if (piece.kind === 'path' && step === 1 && index === pathLength - 1)
    return [...others.slice(0, index), { kind: 'query', name: piece.name, repeated: false }, ...others.slice(index)];
  const to = index + step;
  if (to < 0 || to >= pieces.length || (piece.kind === 'fixed' && step === 1 && index === pathLength - 1)) return [...pieces];
  return [...others.slice(0, to), piece, ...others.slice(to)];
}

/** Puts a parameter into the path, at its end, or into the query. */
export function switchPlace(pieces: readonly AddressPiece[], name: string): AddressPiece[] {
  const piece = pieces.find((candidate) => candidate.kind !== 'fixed' && candidate.name === name);
  const others = pieces.filter((candidate) => candidate !== piece);
  if (piece === undefined || piece.kind === 'fixed') return [...pieces];
  if (piece.kind === 'path') return [...others, { kind: 'query', name, repeated: false }];
  const pathLength = others.filter(({ kind }) => kind !== 'query').length;
  return [...others.slice(0, pathLength), { kind: 'path', name, optional: false }, ...others.slice(pathLength)];
}

/** What is wrong with a fixed segment; undefined where nothing is. */
export function segmentProblem(text: string): string | undefined {
  if (text === '') return 'A segment cannot be empty.';
  if (text === '.' || text === '..') return `“${text}” means another folder to a browser.`;
  if (!/^[A-Za-z0-9_.-]+$/.test(text)) return 'A segment has letters, digits, “-”, “_” and “.”.';
  return undefined;
}

/**
 * The JSON Patch that gives a page the address of these pieces. A parameter that leaves the path of a page that people know
 * is required from then on, as it was before, so that nothing changes for those who come.
 * @param keepOld addresses of the old form go on to lead to the page
 */
export function reshapeAddress(
  definition: AppDefinition,
  page: string,
  pieces: readonly AddressPiece[],
  keepOld: boolean,
): PatchOperation[] {
  const present = definition.pages[page];
  if (present === undefined) return [];
  const before = piecesOf(present.address);
  const patch = changeAddress(definition, page, templateOf(pieces), keepOld);
  const requiredIn = (list: readonly AddressPiece[], name: string) =>
    list.some((piece) => piece.kind === 'path' && piece.name === name && !piece.optional);
  for (const piece of pieces) {
    if (piece.kind === 'fixed') continue;
    const declared = present.parameters?.[piece.name];
    if (declared === undefined) continue;
    const at = toPointer(['pages', page, 'parameters', piece.name, 'required']);
    if (
      keepOld &&
      piece.kind === 'query' &&
      requiredIn(before, piece.name) &&
      declared.required === undefined &&
      declared.default === undefined
    )
      patch.push({ op: 'add', path: at, value: true });
    if (piece.kind === 'path' && declared.required !== undefined) patch.push({ op: 'remove', path: at });
  }
  return patch;
}

/** How many links of the app lead to a page. */
export const linksTo = (definition: AppDefinition, page: string): number => waysIn(definition).filter((way) => way.page === page).length;
