import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

/** Parameters of scrypt (RFC 7914). */
export interface PasswordCost {
  N: number;
  r: number;
  p: number;
}

/** One of the settings that OWASP's Password Storage Cheat Sheet names as equal: 32 MiB of memory, three times. */
const today: PasswordCost = { N: 2 ** 15, r: 8, p: 3 };
/** What hashes of before had, which do not name it. */
const before: PasswordCost = { N: 2 ** 15, r: 8, p: 1 };
/** No hash, wherever it comes from, makes the service take more memory than this, in bytes. */
const mostMemory = 256 * 1024 * 1024;

/** Most derivations at a time: each takes memory and a core. */
export const mostHashesAtOnce = 2;
let running = 0;
const waiting: (() => void)[] = [];

/** @throws RangeError when so many wait that a person would not wait for it either */
class TooManyPasswords extends RangeError {}
const mostWaiting = 200;

async function derive(password: string, salt: Buffer, { N, r, p }: PasswordCost): Promise<Buffer> {
  if (running >= mostHashesAtOnce) {
    if (waiting.length >= mostWaiting) throw new TooManyPasswords('Too many passwords are being checked at once.');
    await new Promise<void>((resolve) => waiting.push(resolve));
  }
  running++;
  try {
    return await new Promise<Buffer>((resolve, reject) => {
      scrypt(opaque(password), salt, 32, { N, r, p, maxmem: mostMemory }, (error, key) => {
        if (error) reject(error);
        else resolve(key);
      });
    });
  } finally {
    running--;
    waiting.shift()?.();
  }
}

/** A password as it is compared: the OpaqueString profile of PRECIS (RFC 8265, 4.2). */
const opaque = (password: string) => password.replaceAll(/\p{Zs}/gu, ' ').normalize('NFC');

/** What a check of a password found: whether it fits, and whether its hash is not made as hashes are made today. */
export interface PasswordCheck {
  fits: boolean;
  outdated: boolean;
}

/** Hashes passwords by a memory-hard function, each with a salt of its own. What a hash costs stands beside it. */
export class Passwords {
  readonly #cost: PasswordCost;

  constructor(cost = today) {
    this.#cost = cost;
  }

  async hash(password: string): Promise<string> {
    const { N, r, p } = this.#cost;
    const salt = randomBytes(16);
    const key = await derive(password, salt, this.#cost);
    return ['scrypt', N, r, p, salt.toString('base64url'), key.toString('base64url')].join('$');
  }

  /** Compares in constant time. Without a hash it takes as long, so that nobody learns which names there are. */
  async check(password: string, hash: string | undefined): Promise<PasswordCheck> {
    const { N, r, p } = this.#cost;
    const parts = (hash ?? '').split('$');
    const [salt = '', key = ''] = parts.slice(-2);
    const known = parts.length === 6 ? { N: Number(parts[1]), r: Number(parts[2]), p: Number(parts[3]) } : before;
    const cost = hash === undefined ? this.#cost : known;
    const wanted = Buffer.from(key, 'base64url');
    const derived = await derive(password, Buffer.from(salt || 'AAAA', 'base64url'), cost);
    const fits = hash !== undefined && wanted.length === derived.length && timingSafeEqual(wanted, derived);
    return { fits, outdated: cost.N !== N || cost.r !== r || cost.p !== p };
  }
}
