import { LessThan, type DataSource, type Repository } from 'typeorm';
import { MailEntity, type MailRow } from './entities/index.ts';

/** A mail as it is to be sent. */
export type NewMail = Pick<MailRow, 'app' | 'recipient' | 'subject' | 'text' | 'html'>;

/** Mails, on disk before anybody is told that they are on their way. */
export class MailStore {
  readonly #mails: Repository<MailRow>;

  constructor(source: DataSource) {
    this.#mails = source.getRepository(MailEntity);
  }

  /** @param state `waiting` to be sent, `kept` where no mail server is configured */
  add(mail: NewMail, state: 'waiting' | 'kept'): Promise<MailRow> {
    return this.#mails.save({ ...mail, state, writtenAt: new Date().toISOString(), tries: 0, problem: '' } as MailRow);
  }

  waiting(): Promise<MailRow[]> {
    return this.#mails.find({ where: { state: 'waiting' }, order: { number: 'ASC' }, take: 100 });
  }

  async update(number: number, change: Partial<MailRow>): Promise<void> {
    await this.#mails.update({ number }, change);
  }

  /** The newest mails first. @param before only those with a lower number */
  list(app: string | undefined, before: number | undefined, most: number): Promise<MailRow[]> {
    return this.#mails.find({
      where: { ...(app === undefined ? {} : { app }), ...(before === undefined ? {} : { number: LessThan(before) }) },
      order: { number: 'DESC' },
      take: most,
    });
  }

  find(number: number): Promise<MailRow | null> {
    return this.#mails.findOneBy({ number });
  }
}
