import fc from 'fast-check';
import { expect, it } from 'vitest';
import { encodedTarget } from '../src/http/odd-target.ts';
import { often } from '../../../test/support/often.ts';

const of = (line: string) => encodedTarget(Buffer.from(`${line}\r\nHost: a\r\n\r\n`));

it('encodes what the URL standard encodes, and nothing that is right', () => {
  expect(of('GET /garden?q=tree\u00a0fern HTTP/1.1')).toBe('/garden?q=tree%C2%A0fern');
  expect(of('HEAD /caf\u00e9 HTTP/1.1')).toBe('/caf%C3%A9');
  expect(of('GET /garden?q=fern HTTP/1.1')).toBeUndefined();
  expect(of('POST /caf\u00e9 HTTP/1.1')).toBeUndefined();
  expect(encodedTarget(Buffer.from([0x47, 0x45, 0x54, 0x20, 0x2f, 0xff]))).toBeUndefined();
});

it('never throws, and never leads to another host or ends a header', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary' }), (target) => {
      const to = encodedTarget(Buffer.from(`GET /${target} HTTP/1.1\r\n\r\n`)) ?? '/';
      expect(to).toMatch(/^\/(?![/\\])[\x21-\x7e]*$/);
    }),
    { numRuns: often(2000) },
  );
});
