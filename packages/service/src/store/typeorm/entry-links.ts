import { randomBytes } from 'node:crypto';
import { In, LessThan, MoreThan } from 'typeorm';
import type { EntryLinkStore } from '../entry-links.ts';
import { hashToken } from '../tokens.ts';
import type { Connection } from './connection.ts';
import { EntryLink } from './entities.ts';

/** As many mails to one person lie open at a time; beyond that none is sent until one is used or too old. */
const mostOpen = 3;

export class TypeormEntryLinkStore implements EntryLinkStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  make(scope: string, login: string, wanted: string | undefined, lifetime: number): Promise<string | undefined> {
    const now = this.#on.clock();
    return this.#on.write(async (manager) => {
      await manager.delete(EntryLink, { endsAt: LessThan(now) });
      if ((await manager.countBy(EntryLink, { scope, login })) >= mostOpen) return undefined;
      const token = randomBytes(32).toString('base64url');
      await manager.insert(EntryLink, { tokenHash: hashToken(token), scope, login, wanted: wanted ?? null, endsAt: now + lifetime });
      return token;
    });
  }

  async login(scope: string, token: string): Promise<string | undefined> {
    const where = { tokenHash: hashToken(token), scope, endsAt: MoreThan(this.#on.clock()) };
    return (await this.#on.reader.findOneBy(EntryLink, where))?.login;
  }

  async endAll(scopes: readonly string[], login: string): Promise<void> {
    await this.#on.write((manager) => manager.delete(EntryLink, { scope: In([...scopes]), login }));
  }

  take(scope: string, token: string): Promise<{ login: string; wanted: string | undefined } | undefined> {
    return this.#on.write(async (manager) => {
      const link = await manager.findOneBy(EntryLink, { tokenHash: hashToken(token), scope });
      if (link === null) return undefined;
      await manager.delete(EntryLink, { scope, login: link.login });
      return link.endsAt <= this.#on.clock() ? undefined : { login: link.login, wanted: link.wanted ?? undefined };
    });
  }
}
