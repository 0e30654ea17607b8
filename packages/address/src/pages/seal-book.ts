import type { Seals } from './call-context.ts';

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
  readonly #bySealed = new Map<string, SealedValue>();
  readonly #byText = new Map<string, SealedValue>();
  readonly #wanted = new Map<string, Omit<SealedValue, 'sealed'>>();

  constructor(values: readonly SealedValue[] = []) {
    for (const value of values) this.add(value);
  }

  /** Everything that is known. */
  get values(): SealedValue[] {
    return [...this.#bySealed.values()];
  }

  /** What was asked for and is not known. */
  get wanted(): Omit<SealedValue, 'sealed'>[] {
    return [...this.#wanted.values()];
  }

  add(value: SealedValue): void {
    this.#bySealed.set(value.sealed, value);
    this.#byText.set(keyOf(value), value);
    this.#wanted.delete(keyOf(value));
  }

  open(page: string, parameter: string, sealed: string): string | undefined {
    const value = this.#bySealed.get(sealed);
    return value?.page === page && value.parameter === parameter ? value.text : undefined;
  }

  seal(page: string, parameter: string, text: string): string | undefined {
    const wanted = { page, parameter, text };
    const sealed = this.#byText.get(keyOf(wanted))?.sealed;
    if (sealed === undefined) this.#wanted.set(keyOf(wanted), wanted);
    return sealed;
  }
}

const keyOf = ({ page, parameter, text }: Omit<SealedValue, 'sealed'>) => `${page}\u0000${parameter}\u0000${text}`;
