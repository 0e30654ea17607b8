import { setImmediate } from 'node:timers/promises';
import type { EntityManager } from 'typeorm';
import type { RecordTableShape } from './record-tables.ts';
import type { RememberedQueries } from './remembered-queries.ts';

/** Rows that are compared or copied at a time, so that no reader waits for long. */
const span = 1000;

/** The ids of a table in spans of so many rows. */
export async function* spansOf(
  manager: EntityManager,
  queries: RememberedQueries,
  { name }: RecordTableShape,
): AsyncGenerator<readonly [first: number, last: number]> {
  const [end] = await queries.rows<{ greatest: number | null }>(manager, `greatest ${name}`, {}, (on) =>
    on.createQueryBuilder().select('MAX(r.id)', 'greatest').from(name, 'r'),
  );
  for (let first = 1; first <= (end?.greatest ?? 0); first += span) {
    yield [first, first + span - 1];
    await setImmediate();
  }
}
