import { In, LessThan, MoreThan, MoreThanOrEqual } from 'typeorm';
import { timestamp } from '../../clock.ts';
import type { CountedMails, MailRow, MailStore, NewMail } from '../mails.ts';
import type { Connection } from './connection.ts';
import { MailEntity } from './entities.ts';
import { TypeormOutbox } from './outbox.ts';

const day = 24 * 60 * 60 * 1000;

export class TypeormMailStore extends TypeormOutbox<MailRow> implements MailStore {
  readonly #keepDays: number;

  /** @param keepDays how long mails are kept, unless they say so themselves */
  constructor(on: Connection, keepDays: number) {
    super(on, MailEntity);
    this.#keepDays = keepDays;
  }

  add(mail: NewMail, state: 'waiting' | 'kept' | 'failed', problem = ''): Promise<MailRow> {
    const now = this.on.clock();
    const row = {
      form: '',
      removeAt: now + this.#keepDays * day,
      ...mail,
      state,
      problem,
      writtenAt: timestamp(this.on.clock),
      tries: 0,
      // One that could not be written is never sent.
      dueAt: problem === '' ? now : 0,
    };
    return this.on.write((manager) => manager.save(MailEntity, row as MailRow));
  }

  async resend(numbers: readonly number[] | 'failed'): Promise<number> {
    const which =
      numbers === 'failed' ? { state: 'failed' as const } : { number: In([...numbers]), state: In(['failed' as const, 'kept' as const]) };
    const change = { state: 'waiting' as const, tries: 0, problem: '', dueAt: this.on.clock() };
    const { affected } = await this.on.write((manager) => manager.update(MailEntity, { ...which, dueAt: MoreThan(0) }, change));
    return affected ?? 0;
  }

  count(app: string, which: CountedMails, since: string): Promise<number> {
    return this.on.reader.countBy(MailEntity, { app, ...which, writtenAt: MoreThanOrEqual(since) });
  }

  async list(app: string | undefined, before: number | undefined, most: number): Promise<MailRow[]> {
    const rows = await this.on.reader.find(MailEntity, {
      where: { ...(app === undefined ? {} : { app }), ...(before === undefined ? {} : { number: LessThan(before) }) },
      order: { number: 'DESC' },
      take: most,
    });
    return rows.map(withoutOneTimeLinks);
  }

  async find(number: number): Promise<MailRow | undefined> {
    return (await this.on.reader.findOneBy(MailEntity, { number })) ?? undefined;
  }
}

/** What a one-time link carries: by `~enter` a person signs in to an app, by `#invited` to the console. */
const oneTime = /((?:~enter=|#invited=))[\w-]+/g;

/** A mail without what lets anyone in who reads it. */
function withoutOneTimeLinks(mail: MailRow): MailRow {
  return { ...mail, text: mail.text.replaceAll(oneTime, '$1…'), html: mail.html.replaceAll(oneTime, '$1…') };
}
