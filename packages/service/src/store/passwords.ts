import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';

// scrypt with 32 MiB of memory (RFC 7914: N = 2^15, r = 8, p = 1).
const cost = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };

const derive = (password: string, salt: Buffer) =>
  new Promise<Buffer>((resolve, reject) => {
    scrypt(password.normalize('NFC'), salt, 32, cost, (error, key) => {
      if (error) reject(error);
      else resolve(key);
    });
  });

/** Hashes a password by a memory-hard function, with a salt of its own. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return `scrypt$${salt.toString('base64url')}$${(await derive(password, salt)).toString('base64url')}`;
}

/** Compares in constant time. Without a hash it takes as long, so that nobody learns which names there are. */
export async function passwordFits(password: string, hash: string | undefined): Promise<boolean> {
  const [, salt = '', key = ''] = (hash ?? '').split('$');
  const wanted = Buffer.from(key, 'base64url');
  const derived = await derive(password, Buffer.from(salt || 'AAAA', 'base64url'));
  return hash !== undefined && wanted.length === derived.length && timingSafeEqual(wanted, derived);
}
