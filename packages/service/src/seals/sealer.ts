import { setTimeout } from 'node:timers/promises';
import { longestAddress, unprotect, type SealBook, type SealedValue } from '@pallmist/app';
import { compactDecrypt, CompactEncrypt } from 'jose';
import { z } from 'zod';
import type { WallClock } from '../clock.ts';
import type { KeyRing } from './key-ring.ts';

/** What is sealed: the text, and all that it is bound to. */
const content = z.object({
  app: z.string(),
  page: z.string(),
  parameter: z.string(),
  text: z.string(),
  /** Seconds since 1970 until which it is valid. */
  until: z.number().optional(),
});

/** An address that holds more is read without them. */
const mostInAddress = 20;
/** Milliseconds. One value takes a quarter of one. */
const step = 2;

const isHeader = /^[A-Za-z0-9_-]{8,400}$/;
/** What follows the header of a JWE in its compact form (RFC 7516) with `dir`, whose second part is empty. */
const afterHeader = /[A-Za-z0-9_-]{16}\.[A-Za-z0-9_-]{1,8000}\.[A-Za-z0-9_-]{22}(?![A-Za-z0-9_-])/y;
const headerSign = /[A-Za-z0-9_-]/;

/** Everything in an address that looks sealed, in time linear in it; nothing in one that is too long to be read at all. */
function sealedTexts(given: string): string[] {
  const found = new Set<string>();
  if (given.length > longestAddress) return [];
  const address = unprotect(given);
  for (let dots = address.indexOf('..'); dots !== -1 && found.size < mostInAddress; dots = address.indexOf('..', dots + 2)) {
    let start = dots;
    while (start > 0 && dots - start < 400 && headerSign.test(address[start - 1] ?? '')) start--;
    afterHeader.lastIndex = dots + 2;
    const rest = isHeader.test(address.slice(start, dots)) ? afterHeader.exec(address)?.[0] : undefined;
    if (rest !== undefined) found.add(`${address.slice(start, dots)}..${rest}`);
  }
  return [...found];
}

/** Whether anything in an address looks sealed. */
export const mayHoldSealed = (address: string): boolean => sealedTexts(address).length > 0;

/** Seals and opens the values of sealed parameters: JWE, `dir`, A256GCM, the key named by its id. */
export class Sealer {
  readonly #keys: KeyRing;
  readonly #clock: WallClock;

  constructor(keys: KeyRing, clock: WallClock) {
    this.#keys = keys;
    this.#clock = clock;
  }

  /** @param days how long it is valid; for ever when left out */
  async seal(app: string, { page, parameter, text }: Omit<SealedValue, 'sealed'>, days?: number): Promise<string> {
    const { id, key } = this.#keys.current;
    const until = days === undefined ? {} : { until: Math.floor(this.#clock() / 1000 + days * 86_400) };
    const payload = new TextEncoder().encode(JSON.stringify({ app, page, parameter, text, ...until }));
    return new CompactEncrypt(payload).setProtectedHeader({ alg: 'dir', enc: 'A256GCM', kid: id }).encrypt(key);
  }

  /** @returns undefined for whatever reason it cannot be opened: changed, foreign, expired, sealed with a forgotten key */
  async open(app: string, sealed: string): Promise<SealedValue | undefined> {
    try {
      const { plaintext } = await compactDecrypt(sealed, ({ kid }) => this.#keys.find(kid ?? '') ?? this.#keys.current.key, {
        keyManagementAlgorithms: ['dir'],
        contentEncryptionAlgorithms: ['A256GCM'],
      });
      const found = content.parse(JSON.parse(new TextDecoder().decode(plaintext)));
      if (found.app !== app || (found.until !== undefined && found.until < this.#clock() / 1000)) return undefined;
      return { page: found.page, parameter: found.parameter, text: found.text, sealed };
    } catch {
      return undefined;
    }
  }

  /**
   * Opens everything in an address that looks sealed. It ends on a full step of time, so that nobody measures whether a
   * value was changed, has expired, or belongs elsewhere.
   */
  async openAll(app: string, address: string): Promise<SealedValue[]> {
    const began = performance.now();
    const opened = await Promise.all(sealedTexts(address).map((sealed) => this.open(app, sealed)));
    const took = performance.now() - began;
    await setTimeout(Math.ceil(took / step) * step - took);
    return opened.filter((value) => value !== undefined);
  }

  /** Seals what was wanted of a book and was not there. @returns whether there was anything */
  async fill(app: string, book: SealBook, daysOf: (page: string, parameter: string) => number | undefined): Promise<boolean> {
    const { wanted } = book;
    const sealed = await Promise.all(
      wanted.map(async (value) => ({ ...value, sealed: await this.seal(app, value, daysOf(value.page, value.parameter)) })),
    );
    for (const value of sealed) book.add(value);
    return wanted.length > 0;
  }
}
