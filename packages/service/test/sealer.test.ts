import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { compactDecrypt, decodeProtectedHeader } from 'jose';
import { afterAll, expect, it } from 'vitest';
import { KeyRing } from '../src/seals/key-ring.ts';
import { Sealer } from '../src/seals/sealer.ts';

const folder = mkdtempSync(join(tmpdir(), 'pallmist-keys-'));
afterAll(() => rmSync(folder, { recursive: true }));
let now = Date.parse('2026-11-19T12:00:00Z');
const clock = () => now;
const file = (name: string) => join(folder, name);
const value = { page: 'card', parameter: 'who', text: 'M-0001 – Ünal' };

it('a sealed value is a JWE by the standard, and opens again', async () => {
  const keys = new KeyRing(file('a.json'), clock);
  const sealer = new Sealer(keys, clock);
  const sealed = await sealer.seal('x', value);
  expect(decodeProtectedHeader(sealed)).toEqual({ alg: 'dir', enc: 'A256GCM', kid: keys.current.id });
  expect(new TextDecoder().decode((await compactDecrypt(sealed, keys.current.key)).plaintext)).toContain('M-0001 – Ünal');
  expect(await sealer.open('x', sealed)).toEqual({ ...value, sealed });
  expect(await sealer.open('y', sealed)).toBeUndefined();
  expect((await sealer.openAll('x', `/card?who=${sealed}&again=${sealed}&other=a..b.c.d`)).length).toBe(1);
});

it('ten thousand tampered values: none opens', async () => {
  const sealer = new Sealer(new KeyRing(file('b.json'), clock), clock);
  const sealed = await sealer.seal('x', value);
  const signs = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_.';
  let opened = 0;
  for (let round = 0; round < 10_000; round++) {
    const at = (round * 7919) % sealed.length;
    const sign = signs[(round * 31 + 7) % signs.length] ?? 'A';
    const kinds = [
      sealed.slice(0, at) + sign + sealed.slice(at + 1),
      sealed.slice(0, at) + sealed.slice(at + 1),
      sealed.slice(0, at) + sign + sealed.slice(at),
      sealed.slice(0, at),
    ];
    const tampered = kinds[round % kinds.length] ?? '';
    const found = tampered === sealed ? undefined : await sealer.open('x', tampered);
    // The last sign of base64url holds bits that mean nothing: the same bytes are no tampering.
    if (found !== undefined && !sameBytes(tampered, sealed)) opened++;
  }
  expect(opened).toBe(0);
}, 60_000);

const sameBytes = (a: string, b: string) =>
  JSON.stringify(a.split('.').map((part) => Buffer.from(part, 'base64url').toString('hex'))) ===
  JSON.stringify(b.split('.').map((part) => Buffer.from(part, 'base64url').toString('hex')));

it('an end of validity holds to the second', async () => {
  const sealer = new Sealer(new KeyRing(file('c.json'), clock), clock);
  const sealed = await sealer.seal('x', value, 1);
  now += 24 * 60 * 60 * 1000;
  expect(await sealer.open('x', sealed)).toBeDefined();
  now += 1000;
  expect(await sealer.open('x', sealed)).toBeUndefined();
});

it('keys rotate: old values open until their key is forgotten, and the file is for the service alone', async () => {
  const keys = new KeyRing(file('d.json'), clock);
  const before = keys.current.id;
  const sealed = await new Sealer(keys, clock).seal('x', value);
  expect(keys.forget(before)).toBe(false);
  keys.rotate();
  expect(keys.current.id).not.toBe(before);
  const again = new KeyRing(file('d.json'), clock);
  expect(again.list().map(({ id, current }) => [id, current])).toEqual([
    [before, false],
    [keys.current.id, true],
  ]);
  expect(await new Sealer(again, clock).open('x', sealed)).toBeDefined();
  expect(again.forget(before)).toBe(true);
  expect(await new Sealer(again, clock).open('x', sealed)).toBeUndefined();
  expect(statSync(file('d.json')).mode & 0o077).toBe(0);
  expect(readFileSync(file('d.json'), 'utf8')).not.toContain(before);
  writeFileSync(file('d.json'), 'nonsense');
  expect(() => new KeyRing(file('d.json'), clock)).toThrow(/every sealed address of the past is void/);
});
