import { createHash, randomBytes } from 'node:crypto';
import { LessThan, type DataSource, type Repository } from 'typeorm';
import { Session, type SessionRow } from './entities/index.ts';

/** Signed-in browsers. */
export class SessionStore {
  readonly #sessions: Repository<SessionRow>;

  constructor(source: DataSource) {
    this.#sessions = source.getRepository(Session);
  }

  /**
   * Begins a session.
   * @param lasts milliseconds
   * @returns the token for the browser, which is kept nowhere else
   */
  async begin(scope: string, login: string, lasts: number): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    await this.#sessions.delete({ endsAt: LessThan(Date.now()) });
    await this.#sessions.insert({ tokenHash: hashToken(token), scope, login, endsAt: Date.now() + lasts });
    return token;
  }

  /** Who is signed in with this token, in this scope; undefined when nobody is or the session has ended. */
  async login(scope: string, token: string | undefined): Promise<string | undefined> {
    if (token === undefined || token === '') return undefined;
    const session = await this.#sessions.findOneBy({ tokenHash: hashToken(token), scope });
    return session !== null && session.endsAt > Date.now() ? session.login : undefined;
  }

  async end(token: string | undefined): Promise<void> {
    if (token !== undefined && token !== '') await this.#sessions.delete({ tokenHash: hashToken(token) });
  }
}

/** Tokens are random and long, so a plain hash is enough. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('base64url');
