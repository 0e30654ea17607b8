import type { EntityManager } from 'typeorm';
import type { WallClock } from '../../clock.ts';
import type { Passwords } from '../../people/passwords.ts';

/** What the stores work on: the database as it is, or, inside of a transaction, as the transaction has it. */
export interface Connection {
  /** Sees what was committed; inside of a transaction, its own changes too. */
  reader: EntityManager;
  /** Runs `work` in a transaction; inside of one, as a part of it. */
  write<Result>(work: (manager: EntityManager) => Promise<Result>): Promise<Result>;
  clock: WallClock;
  passwords: Passwords;
}

/** The same inside of a transaction. */
export const within = (manager: EntityManager, { clock, passwords }: Connection): Connection => ({
  reader: manager,
  write: (work) => work(manager),
  clock,
  passwords,
});
