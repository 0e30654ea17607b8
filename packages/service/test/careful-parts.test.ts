import fc from 'fast-check';
import { looksLike, mediaTypeOf } from '@pallmist/app';
import { describe, expect, it } from 'vitest';
import { asGiven, asNoFormula } from '../src/apps/csv-formulas.ts';
import { loggedError } from '../src/service-log.ts';
import { isInner } from '../src/webhooks/receivers.ts';
import { often } from '../../../test/support/often.ts';

describe('a cell of an export', () => {
  const texts = fc
    .array(fc.constantFrom("'", '=', '+', '-', '@', '\t', '\r', 'a', '1', ' ', '"', ','), { maxLength: 6 })
    .map((all) => all.join(''));

  it('begins like no formula, and comes in as it went out', () => {
    fc.assert(
      fc.property(fc.oneof(texts, fc.string()), (text) => {
        expect(asNoFormula(text)).not.toMatch(/^[=+\-@\t\r]/);
        expect(asGiven(asNoFormula(text))).toBe(text);
      }),
      { numRuns: often(2000) },
    );
  });
});

it.each([
  ['10.0.0.1', true], ['172.16.0.1', true], ['172.32.0.1', false], ['192.168.1.1', true], ['169.254.169.254', true], ['100.64.0.1', true],
  ['0.0.0.0', true], ['224.0.0.1', true], ['255.255.255.255', true], ['8.8.8.8', false], ['[fd00::1]', true], ['[fe80::1]', true], ['[::]', true],
  ['[::ffff:10.0.0.1]', true], ['::ffff:169.254.169.254', true], ['[64:ff9b::a00:1]', true], ['[2606:4700::1]', false],
  // A receiver may run on this machine.
  ['127.0.0.1', false], ['[::1]', false], ['receiver.example', false],
])('%s is in an inner network: %s', (address, inner) => {
  expect(isInner(address)).toBe(inner);
}); // prettier-ignore

it('a file is known by its content, whatever its name says', () => {
  const begins = (...bytes: number[]) => new Uint8Array([...bytes, ...Array<number>(20).fill(7)]);
  const files: [string, Uint8Array][] = [
    ['a.png', begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)],
    ['a.jpg', begins(0xff, 0xd8, 0xff, 0xe0)],
    ['a.gif', begins(0x47, 0x49, 0x46, 0x38, 0x39)],
    ['a.pdf', begins(0x25, 0x50, 0x44, 0x46, 0x2d)],
    ['a.zip', begins(0x50, 0x4b, 0x03, 0x04)],
    ['a.svg', new TextEncoder().encode('\ufeff <?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"/>')],
  ];
  for (const [name] of files)
    for (const [other, bytes] of files) expect([name, other, looksLike(mediaTypeOf(name), bytes)]).toEqual([name, other, name === other]);
  expect(looksLike('image/png', new TextEncoder().encode('<script>alert(1)</script>'))).toBe(false);
  expect(looksLike('text/plain', new TextEncoder().encode('words'))).toBe(true);
  expect(looksLike('text/csv', begins(0))).toBe(false);
});

it('an error is logged without what it carries', () => {
  const error = Object.assign(new Error('UNIQUE constraint failed: person.login'), {
    query: 'INSERT INTO person',
    parameters: ['ansa@quillmoor.example', 'scrypt$32768'],
    driverError: { parameters: ['secret'] },
  });
  const logged = JSON.stringify(loggedError(error));
  expect(logged).toContain('UNIQUE constraint failed');
  for (const secret of ['ansa@', 'scrypt', 'secret', 'INSERT']) expect(logged).not.toContain(secret);
  expect(loggedError('a text')).toMatchObject({ type: 'string' });
});
