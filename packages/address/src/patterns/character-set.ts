const known = new Map<string, CharacterSet>();
const mostKept = 2000;

/** The characters that a class, an escape or a letter of a pattern stands for. */
export class CharacterSet {
  readonly #native: RegExp;
  /** Which of the characters below 128 are in it. */
  readonly #ascii: readonly boolean[];
  /** The only character that it holds, where that is known. */
  readonly only: number | undefined;

  private constructor(source: string) {
    this.#native = new RegExp(`^${source}$`, 'u');
    this.#ascii = Array.from({ length: 128 }, (_, point) => this.#native.test(String.fromCharCode(point)));
    const single = [...source];
    this.only = single.length === 1 && source !== '.' ? source.codePointAt(0) : undefined;
  }

  static of(source: string): CharacterSet {
    let set = known.get(source);
    if (set === undefined) {
      if (known.size >= mostKept) known.clear();
      known.set(source, (set = new CharacterSet(source)));
    }
    return set;
  }

  has(point: number): boolean {
    if (point < 128) return this.#ascii[point] as boolean;
    return this.only === undefined ? this.#native.test(String.fromCodePoint(point)) : this.only === point;
  }

  /** Whether some character may be in both; where that is not clear it may. */
  mayMeet(other: CharacterSet): boolean {
    if (this.#ascii.some((has, point) => has && other.#ascii[point] === true)) return true;
    if (this.only !== undefined) return this.only >= 128 && other.has(this.only);
    if (other.only !== undefined) return other.only >= 128 && this.has(other.only);
    return this.#reachesBeyond() && other.#reachesBeyond();
  }

  /** Whether it may hold a character beyond ASCII. A class of plain letters, digits and signs does not. */
  #reachesBeyond(): boolean {
    return !/^\^(?:\\[dw]|\[[A-Za-z0-9_ .,:;!@#%&*+/=~-]*\])\$$/.test(this.#native.source);
  }
}
