import type { CharacterSet } from './character-set.ts';
import type { Instruction, PatternProgram } from './pattern-program.ts';

/** Pairs of places that are looked at; a pattern that has more counts as ambiguous. */
const mostPairs = 20_000;

/**
 * Whether no text leads to the same place of a pattern in two ways. Then a matcher that tries one way after the other has
 * at most as many ways at each character as the pattern has places, and takes linear time. Where that is not clear: no.
 */
export function isUnambiguous({ instructions, needsNeighbours }: PatternProgram): boolean {
  if (needsNeighbours) return false;
  const follows = new Map<number, number[] | undefined>();
  /** The characters that may come next from a place; undefined where one of them is reached in two ways. */
  const after = (start: number): number[] | undefined => {
    if (!follows.has(start)) follows.set(start, nextPlaces(instructions, start));
    return follows.get(start);
  };
  const setAt = (index: number): CharacterSet | undefined => {
    const instruction = instructions[index];
    return instruction?.kind === 'character' ? instruction.set : undefined;
  };
  const waiting: [number, number][] = [];
  const seen = new Set<number>();
  /** Notes the places that a text can be at after one more character, from two places. @returns false where they are one */
  const meet = (first: readonly number[], second: readonly number[], same: boolean): boolean => {
    for (const a of first) {
      for (const b of second) {
        if (same && a >= b) continue;
        if (a === b) return false;
        if (setAt(a)?.mayMeet(setAt(b) as CharacterSet) !== true) continue;
        const [low, high] = a < b ? [a, b] : [b, a];
        const pair = low * instructions.length + high;
        if (seen.has(pair)) continue;
        if (seen.size >= mostPairs) return false;
        seen.add(pair);
        waiting.push([low, high]);
      }
    }
    return true;
  };
  const starts = [0, ...instructions.flatMap(({ kind }, index) => (kind === 'character' ? [index + 1] : []))];
  for (const start of starts) {
    const next = after(start);
    if (next === undefined || !meet(next, next, true)) return false;
  }
  for (let pair = waiting.pop(); pair !== undefined; pair = waiting.pop()) {
    const [first, second] = [after(pair[0] + 1), after(pair[1] + 1)];
    if (first === undefined || second === undefined) return false;
    // A character that both read next leads to one place in two ways.
    if (first.some((place) => second.includes(place)) || !meet(first, second, false)) return false;
  }
  return true;
}

/** Characters that are reached from a place without reading one; undefined where one of them, or the end, is reached twice. */
function nextPlaces(instructions: readonly Instruction[], start: number): number[] | undefined {
  const found: number[] = [];
  const met = new Set<number>();
  const stack = [start];
  for (let index = stack.pop(); index !== undefined; index = stack.pop()) {
    if (met.has(index)) return undefined;
    met.add(index);
    const instruction = instructions[index] as Instruction;
    if (instruction.kind === 'split') stack.push(instruction.first, instruction.second);
    else if (instruction.kind === 'jump') stack.push(instruction.to);
    else if (instruction.kind === 'character') found.push(index);
  }
  return found;
}
