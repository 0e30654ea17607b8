import { randomBytes } from 'node:crypto';
import { LessThan } from 'typeorm';
import type { HeldFormStore, HeldFrom, HeldTexts } from '../held-forms.ts';
import { hashToken } from '../tokens.ts';
import type { Connection } from './connection.ts';
import { HeldForm } from './entities.ts';

/** What was typed is kept for a day. */
const lifetime = 24 * 60 * 60 * 1000;
/** Most forms that are held for one person, and for one network address, at a time. */
const mostHeld = 20;
/** Most characters of one. */
const mostCharacters = 200_000;

export class TypeormHeldFormStore implements HeldFormStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  hold(scope: string, { address, form, texts }: HeldTexts, { login, network }: HeldFrom): Promise<string | undefined> {
    const kept = JSON.stringify(texts);
    const now = this.#on.clock();
    if (kept.length + address.length > mostCharacters) return Promise.resolve(undefined);
    return this.#on.write(async (manager) => {
      await manager.delete(HeldForm, { endsAt: LessThan(now) });
      const ofPerson = login === undefined ? 0 : await manager.countBy(HeldForm, { scope, login });
      if (ofPerson >= mostHeld || (await manager.countBy(HeldForm, { network })) >= mostHeld) return undefined;
      const token = randomBytes(32).toString('base64url');
      const row = { tokenHash: hashToken(token), scope, address, form, texts: kept, login: login ?? null, network, endsAt: now + lifetime };
      await manager.insert(HeldForm, row);
      return token;
    });
  }

  async find(scope: string, token: string, login: string | undefined): Promise<HeldTexts | undefined> {
    const row = await this.#on.reader.findOneBy(HeldForm, { tokenHash: hashToken(token), scope });
    if (row === null || row.endsAt < this.#on.clock() || (row.login !== null && row.login !== login)) return undefined;
    return { address: row.address, form: row.form, texts: JSON.parse(row.texts) as Record<string, string> };
  }

  async forget(token: string): Promise<void> {
    await this.#on.write((manager) => manager.delete(HeldForm, { tokenHash: hashToken(token) }));
  }
}
