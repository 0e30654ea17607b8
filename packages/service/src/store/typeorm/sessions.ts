import { randomBytes } from 'node:crypto';
import { In, LessThan } from 'typeorm';
import type { SessionLimits, SessionStore } from '../sessions.ts';
import { hashToken } from '../tokens.ts';
import type { Connection } from './connection.ts';
import { Session } from './entities.ts';

const day = 24 * 60 * 60 * 1000;

export class TypeormSessionStore implements SessionStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async begin(scope: string, login: string, { age, idle }: SessionLimits): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const now = this.#on.clock();
    await this.#on.write(async (manager) => {
      // An ended session is remembered for a day: what its person had typed is theirs alone.
      await manager.delete(Session, { endsAt: LessThan(now - day) });
      await manager.insert(Session, {
        tokenHash: hashToken(token),
        scope,
        login,
        endsAt: now + Math.min(age, idle),
        latestEnd: now + age,
        idle,
      });
    });
    return token;
  }

  async login(scope: string, token: string | undefined): Promise<string | undefined> {
    const session = await this.#find(scope, token);
    const now = this.#on.clock();
    if (session === undefined || session.endsAt <= now) return undefined;
    const endsAt = Math.min(session.latestEnd, now + session.idle);
    // Not at each request: the end may be a minute early.
    if (endsAt - session.endsAt > 60_000) {
      const { tokenHash } = session;
      await this.#on.write((manager) => manager.update(Session, { tokenHash }, { endsAt }));
    }
    return session.login;
  }

  async formerLogin(scope: string, token: string | undefined): Promise<string | undefined> {
    const session = await this.#find(scope, token);
    return session === undefined || session.endsAt <= this.#on.clock() - day ? undefined : session.login;
  }

  async endAll(scopes: readonly string[], login: string): Promise<number> {
    const { affected } = await this.#on.write((manager) => manager.delete(Session, { scope: In([...scopes]), login }));
    return affected ?? 0;
  }

  async endScope(scope: string): Promise<number> {
    return (await this.#on.write((manager) => manager.delete(Session, { scope }))).affected ?? 0;
  }

  async end(token: string | undefined): Promise<void> {
    if (token === undefined || token === '') return;
    await this.#on.write((manager) => manager.delete(Session, { tokenHash: hashToken(token) }));
  }

  async #find(scope: string, token: string | undefined) {
    if (token === undefined || token === '') return undefined;
    return (await this.#on.reader.findOneBy(Session, { tokenHash: hashToken(token), scope })) ?? undefined;
  }
}
