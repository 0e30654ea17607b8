import { LessThanOrEqual, Not, type EntitySchema, type FindOptionsOrder, type FindOptionsWhere } from 'typeorm';
import type { OutboxStore, OutgoingNote, Outgoing } from '../../outbox/outbox.ts';
import type { Connection } from './connection.ts';

/** What the rows of every outbox have. */
interface OutboxRow extends Outgoing {
  state: string;
  /** When it is tried next, in milliseconds since 1970. */
  dueAt: number;
  /** When it is removed. */
  removeAt: number;
}

/** The queries by which an outbox is emptied, the same for mails and for messages to webhooks. */
export abstract class TypeormOutbox<Row extends OutboxRow> implements OutboxStore<Row> {
  protected readonly on: Connection;
  readonly #entity: EntitySchema<Row>;

  constructor(on: Connection, entity: EntitySchema<Row>) {
    this.on = on;
    this.#entity = entity;
  }

  due(most: number): Promise<Row[]> {
    return this.on.reader.find(this.#entity, {
      where: where<Row>({ state: 'waiting', dueAt: LessThanOrEqual(this.on.clock()) }),
      order: { dueAt: 'ASC', number: 'ASC' } as FindOptionsOrder<Row>,
      take: most,
    });
  }

  async waiting(): Promise<{ count: number; next: number | undefined }> {
    const waiting = where<Row>({ state: 'waiting' });
    const count = await this.on.reader.countBy(this.#entity, waiting);
    if (count === 0) return { count, next: undefined };
    return { count, next: (await this.on.reader.minimum(this.#entity, 'dueAt' as never, waiting)) ?? undefined };
  }

  async note({ number, tries }: Pick<Row, 'number' | 'tries'>, note: OutgoingNote): Promise<boolean> {
    const { affected } = await this.on.write((manager) =>
      manager.update(this.#entity, where<Row>({ number, tries }), note as object as never),
    );
    return affected === 1;
  }

  async sweep(): Promise<number> {
    const old = where<Row>({ removeAt: LessThanOrEqual(this.on.clock()), state: Not('waiting') });
    if (!(await this.on.reader.existsBy(this.#entity, old))) return 0;
    const { affected } = await this.on.write((manager) => manager.delete(this.#entity, old));
    return affected ?? 0;
  }
}

/** TypeORM cannot tell the columns of a row whose type is a parameter. */
const where = <Row>(columns: object) => columns as FindOptionsWhere<Row>;
