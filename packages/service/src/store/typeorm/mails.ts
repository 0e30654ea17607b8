import { In, LessThan, LessThanOrEqual, MoreThan, MoreThanOrEqual } from 'typeorm';
import { timestamp } from '../../clock.ts';
import type { CountedMails, MailRow, MailStore, NewMail } from '../mails.ts';
import type { Connection } from './connection.ts';
import { MailEntity } from './entities.ts';

const day = 24 * 60 * 60 * 1000;

export class TypeormMailStore implements MailStore {
  readonly #on: Connection;
  readonly #keepDays: number;

  /** @param keepDays how long mails are kept, unless they say so themselves */
  constructor(on: Connection, keepDays: number) {
    this.#on = on;
    this.#keepDays = keepDays;
  }

  add(mail: NewMail, state: 'waiting' | 'kept' | 'failed', problem = ''): Promise<MailRow> {
    const now = this.#on.clock();
    const row = {
      form: '',
      removeAt: now + this.#keepDays * day,
      ...mail,
      state,
      problem,
      writtenAt: timestamp(this.#on.clock),
      tries: 0,
      // One that could not be written is never sent.
      dueAt: problem === '' ? now : 0,
    };
    return this.#on.write((manager) => manager.save(MailEntity, row as MailRow));
  }

  due(most: number): Promise<MailRow[]> {
    const where = { state: 'waiting' as const, dueAt: LessThanOrEqual(this.#on.clock()) };
    return this.#on.reader.find(MailEntity, { where, order: { dueAt: 'ASC', number: 'ASC' }, take: most });
  }

  async waiting(): Promise<{ count: number; next: number | undefined }> {
    const where = { state: 'waiting' as const };
    const count = await this.#on.reader.countBy(MailEntity, where);
    return { count, next: count === 0 ? undefined : ((await this.#on.reader.minimum(MailEntity, 'dueAt', where)) ?? undefined) };
  }

  async note({ number, tries }: Pick<MailRow, 'number' | 'tries'>, change: Partial<MailRow>): Promise<boolean> {
    const { affected } = await this.#on.write((manager) => manager.update(MailEntity, { number, tries }, change));
    return affected === 1;
  }

  async resend(numbers: readonly number[] | 'failed'): Promise<number> {
    const which =
      numbers === 'failed' ? { state: 'failed' as const } : { number: In([...numbers]), state: In(['failed' as const, 'kept' as const]) };
    const change = { state: 'waiting' as const, tries: 0, problem: '', dueAt: this.#on.clock() };
    const { affected } = await this.#on.write((manager) => manager.update(MailEntity, { ...which, dueAt: MoreThan(0) }, change));
    return affected ?? 0;
  }

  count(app: string, which: CountedMails, since: string): Promise<number> {
    return this.#on.reader.countBy(MailEntity, { app, ...which, writtenAt: MoreThanOrEqual(since) });
  }

  list(app: string | undefined, before: number | undefined, most: number): Promise<MailRow[]> {
    return this.#on.reader.find(MailEntity, {
      where: { ...(app === undefined ? {} : { app }), ...(before === undefined ? {} : { number: LessThan(before) }) },
      order: { number: 'DESC' },
      take: most,
    });
  }

  async find(number: number): Promise<MailRow | undefined> {
    return (await this.#on.reader.findOneBy(MailEntity, { number })) ?? undefined;
  }

  async sweep(): Promise<number> {
    const where = { removeAt: LessThanOrEqual(this.#on.clock()), state: In(['kept' as const, 'sent' as const, 'failed' as const]) };
    if (!(await this.#on.reader.existsBy(MailEntity, where))) return 0;
    const { affected } = await this.#on.write((manager) => manager.delete(MailEntity, where));
    return affected ?? 0;
  }
}
