import { createHash, randomBytes } from 'node:crypto';
import { LessThan, type DataSource, type Repository } from 'typeorm';
import { Session, type SessionRow } from './entities/index.ts';

/** When a session ends, in milliseconds: so long after its beginning, and so long after it was last used. */
export interface SessionLimits {
  age: number;
  idle: number;
}

/** Signed-in browsers. */
export class SessionStore {
  readonly #sessions: Repository<SessionRow>;

  constructor(source: DataSource) {
    this.#sessions = source.getRepository(Session);
  }

  /**
   * Begins a session.
   * @returns the token for the browser, which is kept nowhere else
   */
  async begin(scope: string, login: string, { age, idle }: SessionLimits): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const now = Date.now();
    await this.#sessions.delete({ endsAt: LessThan(now) });
    await this.#sessions.insert({
      tokenHash: hashToken(token),
      scope,
      login,
      endsAt: now + Math.min(age, idle),
      latestEnd: now + age,
      idle,
    });
    return token;
  }

  /**
   * Who is signed in with this token, in this scope; undefined when nobody is or the session has ended. To be asked
   * keeps the session alive.
   */
  async login(scope: string, token: string | undefined): Promise<string | undefined> {
    if (token === undefined || token === '') return undefined;
    const tokenHash = hashToken(token);
    const session = await this.#sessions.findOneBy({ tokenHash, scope });
    const now = Date.now();
    if (session === null || session.endsAt <= now) return undefined;
    const endsAt = Math.min(session.latestEnd, now + session.idle);
    // Not at each request: the end may be a minute early.
    if (endsAt - session.endsAt > 60_000) await this.#sessions.update({ tokenHash }, { endsAt });
    return session.login;
  }

  /** Ends every session of a person, in every browser. */
  async endAll(scope: string, login: string): Promise<void> {
    await this.#sessions.delete({ scope, login });
  }

  async end(token: string | undefined): Promise<void> {
    if (token !== undefined && token !== '') await this.#sessions.delete({ tokenHash: hashToken(token) });
  }
}

/** Tokens are random and long, so a plain hash is enough. */
export const hashToken = (token: string): string => createHash('sha256').update(token).digest('base64url');
