import { AsyncLocalStorage } from 'node:async_hooks';
import { setImmediate, setTimeout } from 'node:timers/promises';
import type { DataSource, EntityManager, QueryRunner } from 'typeorm';
import { isBusy } from '../sqlite/driver.ts';

/** Most writes that share one transaction, and so one wait for the disk. */
const groupSize = 8;
/** How often, and after how many milliseconds, a database that another process holds is tried again. */
const busyTries = 400;
const busyWait = 10;

interface Job {
  work: (manager: EntityManager) => Promise<unknown>;
  resolve: (value: unknown) => void;
  reject: (reason: unknown) => void;
}

/**
 * Takes all writes to the database, one after the other: a connection of SQLite has one transaction at a time. Writes
 * that wait together share a transaction, each in a savepoint of its own: what one does wrong undoes nothing of another.
 * A write is acknowledged when its transaction is on disk.
 */
export class WriteQueue {
  readonly #source: DataSource;
  readonly #jobs: Job[] = [];
  readonly #inside = new AsyncLocalStorage<true>();
  #running: Promise<void> | undefined;

  constructor(source: DataSource) {
    this.#source = source;
  }

  /**
   * Runs `work` in a transaction that commits when it resolves, and is undone when it rejects.
   * @throws where it is called inside of another one’s work, which would wait for itself
   */
  run<Result>(work: (manager: EntityManager) => Promise<Result>): Promise<Result> {
    if (this.#inside.getStore() === true) return Promise.reject(new Error('A write waits for the write that it is a part of.'));
    return new Promise<Result>((resolve, reject) => {
      this.#jobs.push({ work, resolve: resolve as (value: unknown) => void, reject });
      this.#running ??= this.#drain().finally(() => {
        this.#running = undefined;
        // While it is on, Node tracks every promise, which slows the service down.
        this.#inside.disable();
      });
    });
  }

  /** Resolves when nothing is waiting to be written. */
  async settled(): Promise<void> {
    while (this.#running !== undefined) await this.#running;
  }

  async #drain(): Promise<void> {
    while (this.#jobs.length > 0) {
      await this.#runGroup(this.#jobs.splice(0, groupSize));
      // Readers take their turn between two groups.
      await setImmediate();
    }
  }

  async #runGroup(jobs: Job[]): Promise<void> {
    const runner = this.#source.createQueryRunner();
    const settle: (() => void)[] = [];
    try {
      await begin(runner);
      for (const { work, resolve, reject } of jobs) {
        await runner.startTransaction();
        try {
          const value = await this.#inside.run(true, () => work(runner.manager));
          await runner.commitTransaction();
          settle.push(() => {
            resolve(value);
          });
        } catch (error) {
          await undoWrite(runner, error);
          settle.push(() => {
            reject(error);
          });
        }
      }
      await runner.commitTransaction();
    } catch (error) {
      // Nothing of the group is on disk: a full disk, say.
      await undo(runner);
      for (const { reject } of jobs) reject(error);
      return;
    }
    for (const tell of settle) tell();
  }
}

async function begin(runner: QueryRunner): Promise<void> {
  for (let tries = 1; ; tries++) {
    try {
      await runner.startTransaction();
      return;
    } catch (error) {
      // The runner believes that it is in a transaction: it is not.
      (runner as { isTransactionActive: boolean }).isTransactionActive = false;
      if (!isBusy(error) || tries >= busyTries) throw error;
      await setTimeout(busyWait);
    }
  }
}

/**
 * Undoes one write of a group.
 * @throws what the write threw, where SQLite has undone the whole group with it: a full disk, not the savepoint that is gone
 */
async function undoWrite(runner: QueryRunner, error: unknown): Promise<void> {
  try {
    await runner.rollbackTransaction();
  } catch {
    throw error;
  }
}

async function undo(runner: QueryRunner): Promise<void> {
  try {
    while (runner.isTransactionActive) await runner.rollbackTransaction();
  } catch {
    // SQLite has undone the transaction itself, as it does when the disk is full.
    Object.assign(runner, { isTransactionActive: false, transactionDepth: 0 });
  }
}
