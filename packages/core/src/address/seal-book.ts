import type { Seals } from './seals.ts';

/** A text of a sealed parameter, and what stands for it in addresses. */
export interface SealedValue {
  page: string;
  parameter: string;
  text: string;
  sealed: string;
}

/**
 * The sealed values that are known here, so that addresses with them can be read and written without a key. What would
 * have to be sealed and is not known is noted down, for whoever has the key.
 */
export class SealBook implements Seals {
  readonly #texts = new Map<string, string>();
  readonly #sealed = new Map<string, string>();
  /** Asked for and not known. */
  readonly wanted = new Map<string, Omit<SealedValue, 'sealed'>>();

  constructor(values: readonly SealedValue[] = []) {
    for (const value of values) this.add(value);
  }

  add({ page, parameter, text, sealed }: SealedValue): void {
    this.#texts.set(keyOf(page, parameter, sealed), text);
    this.#sealed.set(keyOf(page, parameter, text), sealed);
    this.wanted.delete(keyOf(page, parameter, text));
  }

  open(page: string, parameter: string, sealed: string): string | undefined {
    return this.#texts.get(keyOf(page, parameter, sealed));
  }

  seal(page: string, parameter: string, text: string): string | undefined {
    const key = keyOf(page, parameter, text);
    const sealed = this.#sealed.get(key);
    if (sealed === undefined) this.wanted.set(key, { page, parameter, text });
    return sealed;
  }
}

const keyOf = (page: string, parameter: string, text: string) => `${page}\u0000${parameter}\u0000${text}`;
