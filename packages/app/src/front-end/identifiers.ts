/**
 * Gives out names for constants: `specimen-tab` with the ending `Page` becomes `specimenTabPage`. The ending keeps them from
 * being a word of JavaScript; a number keeps two from being the same.
 */
export class Identifiers {
  readonly #taken = new Set<string>();

  make(name: string, ending: string): string {
    const words = name.split(/[^A-Za-z0-9]+/).filter((word) => word !== '');
    const joined = words
      .map((word, index) => (index === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1))
      .join('');
    const wanted = (/^[0-9]/.test(joined) || joined === '' ? `_${joined}` : joined) + ending;
    let given = wanted;
    for (let number = 2; this.#taken.has(given); number++) given = wanted + String(number);
    this.#taken.add(given);
    return given;
  }
}
