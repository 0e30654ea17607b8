import { LessThan } from 'typeorm';
import type { ReceiptStore } from '../receipts.ts';
import type { Connection } from './connection.ts';
import { Receipt } from './entities.ts';

/** A form that is sent again after a day is a new one. */
const lifetime = 24 * 60 * 60 * 1000;

export class TypeormReceiptStore implements ReceiptStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async find(app: string, mark: string): Promise<string | undefined> {
    const receipt = await this.#on.reader.findOneBy(Receipt, { app, mark });
    return receipt === null || receipt.endsAt < this.#on.clock() ? undefined : receipt.next;
  }

  async keep(app: string, mark: string, next: string): Promise<void> {
    const now = this.#on.clock();
    await this.#on.write(async (manager) => {
      await manager.delete(Receipt, { endsAt: LessThan(now) });
      await manager.upsert(Receipt, { app, mark, next, endsAt: now + lifetime }, ['app', 'mark']);
    });
  }
}
