import { setTimeout } from 'node:timers/promises';
import type { SealBook, SealedValue } from '@pallmist/core';
import { compactDecrypt, CompactEncrypt } from 'jose';
import { z } from 'zod';
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

/** A JWE in its compact form (RFC 7516) with `dir`: its second part is empty. */
const compactForm = /[A-Za-z0-9_-]{8,400}\.\.[A-Za-z0-9_-]{16}\.[A-Za-z0-9_-]{1,8000}\.[A-Za-z0-9_-]{22}/g;
/** An address that holds more is read without them. */
const mostInAddress = 20;
/** Milliseconds. One value takes a quarter of one. */
const step = 2;

/** Whether anything in an address looks sealed. */
export const mayHoldSealed = (address: string): boolean => address.search(compactForm) !== -1;

/** Seals and opens the values of sealed parameters: JWE, `dir`, A256GCM, the key named by its id. */
export class Sealer {
  readonly #keys: KeyRing;

  constructor(keys: KeyRing) {
    this.#keys = keys;
  }

  /** @param days how long it is valid; for ever when left out */
  async seal(app: string, { page, parameter, text }: Omit<SealedValue, 'sealed'>, days?: number): Promise<string> {
    const { id, key } = this.#keys.current;
    const until = days === undefined ? {} : { until: Math.floor(Date.now() / 1000 + days * 86_400) };
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
      if (found.app !== app || (found.until !== undefined && found.until < Date.now() / 1000)) return undefined;
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
    const found = [...new Set(address.match(compactForm) ?? [])].slice(0, mostInAddress);
    const opened = await Promise.all(found.map((sealed) => this.open(app, sealed)));
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
