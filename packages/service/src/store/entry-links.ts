import { randomBytes } from 'node:crypto';
import { LessThan, MoreThan, type DataSource, type Repository } from 'typeorm';
import { EntryLink, type EntryLinkRow } from './entities/index.ts';
import { hashToken } from './sessions.ts';

/** As many mails to one person lie open at a time; beyond that none is sent until one is used or too old. */
const mostOpen = 3;

/** The links of mails that let somebody in, once. */
export class EntryLinkStore {
  readonly #links: Repository<EntryLinkRow>;

  constructor(source: DataSource) {
    this.#links = source.getRepository(EntryLink);
  }

  /**
   * @param back where the person wanted to go
   * @param lasts milliseconds
   * @returns the token for the mail, which is kept nowhere else; undefined when so many are open that another is not sent
   */
  async make(scope: string, login: string, back: string | undefined, lasts: number): Promise<string | undefined> {
    const now = Date.now();
    await this.#links.delete({ endsAt: LessThan(now) });
    if ((await this.#links.countBy({ scope, login })) >= mostOpen) return undefined;
    const token = randomBytes(32).toString('base64url');
    await this.#links.insert({ tokenHash: hashToken(token), scope, login, back: back ?? null, endsAt: now + lasts });
    return token;
  }

  /** Whom a token would let in; undefined when it has been used, is too old, or never was. */
  async login(scope: string, token: string): Promise<string | undefined> {
    return (await this.#links.findOneBy({ tokenHash: hashToken(token), scope, endsAt: MoreThan(Date.now()) }))?.login;
  }

  /** Uses a token up, and with it every other that the person has. */
  async take(scope: string, token: string): Promise<{ login: string; back: string | undefined } | undefined> {
    const tokenHash = hashToken(token);
    const link = await this.#links.findOneBy({ tokenHash, scope });
    // Of two requests at the same time the one gets it that takes it away.
    if (link === null || (await this.#links.delete({ tokenHash })).affected !== 1 || link.endsAt <= Date.now()) return undefined;
    await this.#links.delete({ scope, login: link.login });
    return { login: link.login, back: link.back ?? undefined };
  }
}
