import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';
import { timestamp, type WallClock } from '../clock.ts';
import { StartError } from '../start-error.ts';
import { writePrivately } from '../write-privately.ts';

const keptKey = z.object({
  id: z.string().min(1),
  /** 256 bits, base64url. */
  key: z.string().regex(/^[A-Za-z0-9_-]{43}$/),
  madeAt: z.string(),
});
type KeptKey = z.infer<typeof keptKey>;

/** What may be shown of a key: not the key itself. */
export interface KeyInfo {
  id: string;
  madeAt: string;
  /** New values are sealed with it; the others only open. */
  current: boolean;
}

/** The keys that seal values in addresses, in a file for the service alone. The newest seals, all of them open. */
export class KeyRing {
  readonly #file: string;
  readonly #clock: WallClock;
  #keys: KeptKey[];

  /** @throws StartError when the file is there and is no key ring: to make a new one would void every sealed address */
  constructor(file: string, clock: WallClock) {
    this.#file = file;
    this.#clock = clock;
    this.#keys = existsSync(file) ? readKeys(file) : [];
    if (this.#keys.length === 0) this.rotate();
  }

  get current(): { id: string; key: Uint8Array } {
    const newest = this.#keys.at(-1);
    if (newest === undefined) throw new Error('The key ring is empty.');
    return { id: newest.id, key: Buffer.from(newest.key, 'base64url') };
  }

  find(id: string): Uint8Array | undefined {
    const found = this.#keys.find((candidate) => candidate.id === id);
    return found && Buffer.from(found.key, 'base64url');
  }

  list(): KeyInfo[] {
    return this.#keys.map(({ id, madeAt }, index) => ({ id, madeAt, current: index === this.#keys.length - 1 }));
  }

  /** Makes a new key, which seals from now on; what the older ones have sealed still opens. */
  rotate(): KeyInfo {
    const made = { id: randomBytes(6).toString('hex'), key: randomBytes(32).toString('base64url'), madeAt: timestamp(this.#clock) };
    this.#write([...this.#keys, made]);
    return { id: made.id, madeAt: made.madeAt, current: true };
  }

  /** Deletes a key: values that it sealed can no longer be decrypted. @returns false when there is no such key, or it is the current one */
  forget(id: string): boolean {
    const rest = this.#keys.filter((candidate) => candidate.id !== id);
    if (rest.length === this.#keys.length || this.#keys.at(-1)?.id === id) return false;
    this.#write(rest);
    return true;
  }

  #write(keys: KeptKey[]): void {
    writePrivately(this.#file, JSON.stringify(keys, undefined, 1));
    this.#keys = keys;
  }
}

function readKeys(file: string): KeptKey[] {
  try {
    return z.array(keptKey).parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    throw new StartError(
      `The file ${file} holds no keys that Pallmist understands. Put back the right one; or take it away, and every sealed address of the past is void.`,
    );
  }
}
