import { CharacterSet } from './character-set.ts';
import { PatternNotLinear, type PatternNode } from './parse-pattern.ts';

/** Most instructions of a program: so many looks are taken at each character of a text. */
export const mostInstructions = 1000;

export type Instruction =
  | { kind: 'character'; set: CharacterSet }
  | { kind: 'split'; first: number; second: number }
  | { kind: 'jump'; to: number }
  | { kind: 'assertion'; of: 'start' | 'end' | 'boundary' | 'no-boundary' }
  | { kind: 'end' };

export interface PatternProgram {
  instructions: readonly Instruction[];
  /** Whether an assertion looks at the characters beside a place. */
  needsNeighbours: boolean;
}

/** Turns a pattern into instructions (Thompson 1968). @throws PatternNotLinear where that makes too many */
export function compileNode(node: PatternNode): PatternProgram {
  const instructions: Instruction[] = [];
  const add = (instruction: Instruction): number => {
    if (instructions.length >= mostInstructions)
      throw new PatternNotLinear(`It is too large: its repetitions make more than ${String(mostInstructions)} steps.`);
    return instructions.push(instruction) - 1;
  };
  /** Writes a part that may be passed by. */
  const optional = (write: () => void) => {
    const split = add({ kind: 'split', first: 0, second: 0 });
    write();
    instructions[split] = { kind: 'split', first: split + 1, second: instructions.length };
  };
  const write = (part: PatternNode): void => {
    switch (part.kind) {
      case 'empty':
        break;
      case 'character':
        add({ kind: 'character', set: CharacterSet.of(part.source) });
        break;
      case 'assertion':
        add({ kind: 'assertion', of: part.of });
        break;
      case 'sequence':
        for (const inner of part.parts) write(inner);
        break;
      case 'choice': {
        const jumps: number[] = [];
        for (const [index, inner] of part.parts.entries()) {
          if (index === part.parts.length - 1) {
            write(inner);
            break;
          }
          optional(() => {
            write(inner);
            jumps.push(add({ kind: 'jump', to: 0 }));
          });
        }
        for (const jump of jumps) instructions[jump] = { kind: 'jump', to: instructions.length };
        break;
      }
      case 'repeat': {
        for (let count = 0; count < part.least; count++) write(part.part);
        if (part.most === Infinity) {
          const start = instructions.length;
          optional(() => {
            write(part.part);
            add({ kind: 'jump', to: start });
          });
        } else
          for (let count = part.least; count < part.most; count++)
            optional(() => {
              write(part.part);
            });
        break;
      }
    }
  };
  write(node);
  add({ kind: 'end' });
  return { instructions, needsNeighbours: instructions.some(({ kind }) => kind === 'assertion') };
}
