import type { CharacterSet } from './character-set.ts';
import { PatternNotLinear } from './parse-pattern.ts';
import type { Instruction, PatternProgram } from './pattern-program.ts';

/** Most places of a pattern at which a character is read. All those a text can be at are looked at for each character. */
const mostPlaces = 95;
/** Most classes of characters, beside single ones: each is asked about each character. */
const mostClasses = 50;
/** Characters whose places are remembered. */
const mostRemembered = 4096;

/** Sets of places, and ways between them, that are remembered; beyond that all are forgotten and gathered again. */
const mostSets = 500;
const mostSteps = 5000;

/** What an assertion can see between two characters, as bits. */
const seen = { start: 1, end: 2, boundary: 4 } as const;

/**
 * Follows all ways through a pattern at once (the position automaton of Glushkov and McNaughton-Yamada, as sets of bits): a
 * character costs at most one pass over the places, whatever the text is.
 */
export class AllWays {
  readonly #instructions: readonly Instruction[];
  /** The instructions that read, in order; the bit after the last one stands for the end. */
  readonly #readers: readonly number[];
  readonly #bitOf = new Map<number, number>();
  /** 32-bit words of a set of places. */
  readonly #words: number;
  /** For each set of characters the places that read it. */
  readonly #sets = new Map<CharacterSet, Int32Array>();
  readonly #allowed = new Map<number, Int32Array>();
  /** For what assertions can see: the places that come next, the words of one place after those of another. */
  readonly #follows = new Map<number, Int32Array>();

  /** Sets of places that texts have led to, by what they hold, and the number of the one that a character leads to. */
  readonly #known = new Map<string, number>();
  readonly #present: Int32Array[] = [];
  readonly #steps = new Map<number, number>();

  /** @throws PatternNotLinear where it has too many places */
  constructor({ instructions }: PatternProgram) {
    this.#instructions = instructions;
    this.#readers = instructions.flatMap(({ kind }, index) => (kind === 'character' ? [index] : []));
    const { length } = this.#readers;
    if (length > mostPlaces)
      throw new PatternNotLinear(
        `A text can match it in several ways, and with its repetitions it reads ${String(length)} characters one by one; such a pattern may have ${String(mostPlaces)}.`,
      );
    this.#words = (length >> 5) + 1;
    for (const [bit, index] of this.#readers.entries()) this.#bitOf.set(index, bit);
    for (const [bit, index] of this.#readers.entries()) {
      const instruction = instructions[index];
      if (instruction?.kind !== 'character') continue;
      let places = this.#sets.get(instruction.set);
      if (places === undefined) this.#sets.set(instruction.set, (places = new Int32Array(this.#words)));
      add(places, bit);
    }
    if ([...this.#sets.keys()].filter(({ only }) => only === undefined).length > mostClasses)
      throw new PatternNotLinear(`A text can match it in several ways, and it has more than ${String(mostClasses)} classes of characters.`);
  }

  test(text: string): boolean {
    let after = text.length === 0 ? -1 : (text.codePointAt(0) ?? -1);
    let present = this.#reachedFrom(0, whatIsSeen(-1, after));
    let number = this.#numberOf(present);
    for (let at = 0; at < text.length;) {
      const point = after;
      at += point > 0xffff ? 2 : 1;
      after = at < text.length ? (text.codePointAt(at) ?? -1) : -1;
      const sees = whatIsSeen(point, after);
      const way = (number * 8 + sees) * 0x110000 + point;
      const known = this.#steps.get(way);
      if (known !== undefined) {
        number = known;
        present = this.#present[number] as Int32Array;
        continue;
      }
      const next = step(present, this.#allowedBy(point), this.#followsFor(sees));
      if (next === undefined) return false;
      present = next;
      if (this.#steps.size >= mostSteps || this.#present.length >= mostSets) {
        this.#forget();
        number = this.#numberOf(present);
      } else {
        number = this.#numberOf(present);
        this.#steps.set(way, number);
      }
    }
    return ((present[this.#readers.length >> 5] as number) & (1 << (this.#readers.length & 31))) !== 0;
  }

  #numberOf(places: Int32Array): number {
    const key = places.join();
    let number = this.#known.get(key);
    if (number === undefined) {
      number = this.#present.push(places) - 1;
      this.#known.set(key, number);
    }
    return number;
  }

  #forget(): void {
    this.#known.clear();
    this.#steps.clear();
    this.#present.length = 0;
  }

  /** The places that read a character. */
  #allowedBy(point: number): Int32Array {
    let allowed = this.#allowed.get(point);
    if (allowed !== undefined) return allowed;
    allowed = new Int32Array(this.#words);
    for (const [set, places] of this.#sets)
      if (set.has(point))
        for (let word = 0; word < this.#words; word++) allowed[word] = (allowed[word] as number) | (places[word] as number);
    if (this.#allowed.size >= mostRemembered) this.#allowed.clear();
    this.#allowed.set(point, allowed);
    return allowed;
  }

  #followsFor(sees: number): Int32Array {
    let follows = this.#follows.get(sees);
    if (follows !== undefined) return follows;
    follows = new Int32Array(this.#readers.length * this.#words);
    for (const [place, index] of this.#readers.entries()) follows.set(this.#reachedFrom(index + 1, sees), place * this.#words);
    this.#follows.set(sees, follows);
    return follows;
  }

  /** The places that are reached from an instruction without reading a character. */
  #reachedFrom(start: number, sees: number): Int32Array {
    const reached = new Int32Array(this.#words);
    const met = new Set<number>();
    const waiting = [start];
    for (let index = waiting.pop(); index !== undefined; index = waiting.pop()) {
      if (met.has(index)) continue;
      met.add(index);
      const instruction = this.#instructions[index];
      if (instruction?.kind === 'split') waiting.push(instruction.first, instruction.second);
      else if (instruction?.kind === 'jump') waiting.push(instruction.to);
      else if (instruction?.kind === 'assertion') {
        if (holds(instruction.of, sees)) waiting.push(index + 1);
      } else add(reached, this.#bitOf.get(index) ?? this.#readers.length);
    }
    return reached;
  }
}

/** The places that a character leads to; undefined where it is read nowhere. */
function step(present: Int32Array, allowed: Int32Array, follows: Int32Array): Int32Array | undefined {
  const words = present.length;
  const next = new Int32Array(words);
  let any = 0;
  for (let word = 0; word < words; word++) {
    let bits = (present[word] as number) & (allowed[word] as number);
    any |= bits;
    while (bits !== 0) {
      const start = ((word << 5) + 31 - Math.clz32(bits & -bits)) * words;
      bits &= bits - 1;
      for (let other = 0; other < words; other++) next[other] = (next[other] as number) | (follows[start + other] as number);
    }
  }
  return any === 0 ? undefined : next;
}

function add(places: Int32Array, bit: number): void {
  places[bit >> 5] = (places[bit >> 5] as number) | (1 << (bit & 31));
}

const isWord = (point: number) =>
  (point >= 48 && point <= 57) || (point >= 65 && point <= 90) || (point >= 97 && point <= 122) || point === 95;

/** @param before code point; -1 at the beginning @param after the same at the end */
const whatIsSeen = (before: number, after: number): number =>
  (before === -1 ? seen.start : 0) | (after === -1 ? seen.end : 0) | (isWord(before) === isWord(after) ? 0 : seen.boundary);

const holds = (of: 'start' | 'end' | 'boundary' | 'no-boundary', sees: number): boolean =>
  of === 'no-boundary' ? (sees & seen.boundary) === 0 : (sees & seen[of]) !== 0;
