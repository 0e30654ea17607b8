import type { CharacterSet } from './character-set.ts';
import { parsePattern } from './parse-pattern.ts';
import { compileNode, type Instruction } from './pattern-program.ts';

/** Most sets of places that are visited. */
const mostVisited = 4000;
/** Tried before all others, so that a text reads like something that people write. */
const preferred = 'a0bA1x9Z-_ .,';
const beyondAscii = 'éßñЖ中の😀';

/**
 * A shortest text that all of some patterns match, and none of others: the product of their automata, searched breadth
 * first. Of characters that no pattern tells apart only one is tried.
 * @param matched patterns (ECMA-262, flag u) that match the whole text
 * @param unmatched patterns that do not
 * @returns undefined where there is no such text, or where it is not found: a pattern that looks around, or one that is too large
 */
export function shortestText(matched: readonly string[], unmatched: readonly string[] = []): string | undefined {
  const key = JSON.stringify([matched, unmatched]);
  if (found.has(key)) return found.get(key);
  const text = search(matched, unmatched);
  if (found.size >= mostKept) found.clear();
  found.set(key, text);
  return text;
}

const found = new Map<string, string | undefined>();
const mostKept = 2000;

function search(matched: readonly string[], unmatched: readonly string[]): string | undefined {
  const programs: (readonly Instruction[])[] = [];
  try {
    for (const source of [...matched, ...unmatched]) {
      const { instructions, needsNeighbours } = compileNode(parsePattern(source));
      if (needsNeighbours) return undefined;
      programs.push(instructions);
    }
  } catch {
    return undefined;
  }
  const signs = distinctSigns(programs);
  const accepts = (places: readonly Places[]) =>
    places.every(({ atEnd }, index) => atEnd === index < matched.length) && places.length === programs.length;
  let frontier: { text: string; places: Places[] }[] = [{ text: '', places: programs.map((program) => placesFrom(program, [0])) }];
  const visited = new Set<string>();
  while (frontier.length > 0) {
    const next: typeof frontier = [];
    for (const { text, places } of frontier) {
      if (accepts(places)) return text;
      for (const sign of signs) {
        const point = sign.codePointAt(0) as number;
        const reached = programs.map((program, index) => readOne(program, places[index] as Places, point));
        // What one of the first can no longer match, no longer text will.
        if (reached.some(({ readers, atEnd }, index) => index < matched.length && readers.length === 0 && !atEnd)) continue;
        const key = reached.map(({ readers, atEnd }) => `${readers.join()}${atEnd ? '.' : ''}`).join('|');
        if (visited.has(key)) continue;
        if (visited.size >= mostVisited) return undefined;
        visited.add(key);
        next.push({ text: text + sign, places: reached });
      }
    }
    frontier = next;
  }
  return undefined;
}

/** Where a text can be in a pattern: the instructions that read its next character, and whether it may end here. */
interface Places {
  readers: readonly number[];
  atEnd: boolean;
}

function placesFrom(instructions: readonly Instruction[], starts: readonly number[]): Places {
  const readers: number[] = [];
  let atEnd = false;
  const met = new Set<number>();
  const waiting = [...starts];
  for (let index = waiting.pop(); index !== undefined; index = waiting.pop()) {
    if (met.has(index)) continue;
    met.add(index);
    const instruction = instructions[index];
    if (instruction?.kind === 'split') waiting.push(instruction.first, instruction.second);
    else if (instruction?.kind === 'jump') waiting.push(instruction.to);
    else if (instruction?.kind === 'end') atEnd = true;
    else readers.push(index);
  }
  return { readers: readers.sort((one, other) => one - other), atEnd };
}

function readOne(instructions: readonly Instruction[], { readers }: Places, point: number): Places {
  const reading = readers.filter((index) => {
    const instruction = instructions[index];
    return instruction?.kind === 'character' && instruction.set.has(point);
  });
  return placesFrom(
    instructions,
    reading.map((index) => index + 1),
  );
}

/** One character for each class of those that the patterns do not tell apart. */
function distinctSigns(programs: readonly (readonly Instruction[])[]): string[] {
  const sets = new Set<CharacterSet>();
  for (const program of programs) for (const instruction of program) if (instruction.kind === 'character') sets.add(instruction.set);
  const printable = Array.from({ length: 95 }, (_, index) => String.fromCharCode(32 + index));
  const only = [...sets].flatMap((set) => (set.only === undefined ? [] : [String.fromCodePoint(set.only)]));
  const found = new Map<string, string>();
  for (const sign of [...preferred, ...printable, ...beyondAscii, ...only]) {
    const signature = [...sets].map((set) => (set.has(sign.codePointAt(0) as number) ? '1' : '0')).join('');
    if (!found.has(signature)) found.set(signature, sign);
  }
  return [...found.values()];
}
