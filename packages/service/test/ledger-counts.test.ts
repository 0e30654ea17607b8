import fc from 'fast-check';
import { expect, it } from 'vitest';
import { WaitingCounts } from '../src/ledger/waiting-counts.ts';
import { WaitingTries } from '../src/ledger/waiting-tries.ts';

const name = fc.constantFrom('a', 'b', 'c');
const sighting = fc.record({ app: name, day: name, page: name, referrer: name, parameter: name, state: name, bucket: name });

it('counts each combination once, loses none, and takes back what was not written', () => {
  fc.assert(
    fc.property(fc.array(sighting, { maxLength: 60 }), (seen) => {
      const counts = new WaitingCounts();
      const add = ({ parameter, state, bucket, ...of }: (typeof seen)[number]) => {
        counts.of(of)(parameter, state, bucket);
      };
      for (const one of seen) add(one);
      const rows = counts.take();
      expect(new Set(rows.map((row) => JSON.stringify({ ...row, count: 0 }))).size).toBe(rows.length);
      for (const { count, ...key } of rows)
        expect(seen.filter((one) => Object.entries(key).every(([part, value]) => one[part as keyof typeof one] === value)).length).toBe(
          count,
        );
      // Visitors go on while writing fails.
      for (const one of seen) add(one);
      for (const row of rows) counts.of(row)(row.parameter, row.state, row.bucket, row.count);
      expect(counts.take().reduce((sum, { count }) => sum + count, 0)).toBe(2 * seen.length);
      expect(counts.take()).toEqual([]);
    }),
  );
});

it('counts what is new together once there is too much of it', () => {
  const counts = new WaitingCounts();
  const add = counts.of({ app: 'garden', day: '2026-11-19', page: 'list', referrer: 'none' });
  for (let index = 0; index < 6000; index++) add('q', 'given', String(index));
  const rows = counts.take();
  expect(rows.length).toBeLessThanOrEqual(5002);
  expect(rows.reduce((sum, { count }) => sum + count, 0)).toBe(6000);
});

it('waits with a bounded number of addresses, and never with their queries', () => {
  const tries = new WaitingTries();
  for (let index = 0; index < 1500; index++) tries.add('garden', `/garden/${String(index)}`, '2026-11-19');
  tries.add('garden', '/garden/0', '2026-11-19');
  tries.add('garden', `/${'long'.repeat(100)}`, '2026-11-19');
  const rows = tries.take();
  expect(rows).toHaveLength(1000);
  expect(rows[0]).toMatchObject({ path: '/garden/0', tries: 2 });
  tries.putBack(rows);
  tries.add('garden', '/garden/0', '2026-11-19');
  expect(tries.take()[0]).toMatchObject({ tries: 3 });
});
