import { randomBytes, randomUUID } from 'node:crypto';
import { timestamp } from '../../clock.ts';
import type { BuilderRole, BuilderRow, BuilderStore } from '../builders.ts';
import { hashToken } from '../tokens.ts';
import type { Connection } from './connection.ts';
import { BuilderEntity } from './entities.ts';

const day = 24 * 60 * 60 * 1000;

export class TypeormBuilderStore implements BuilderStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  list(): Promise<BuilderRow[]> {
    return this.#on.reader.find(BuilderEntity, { order: { mail: 'ASC' } });
  }

  async find(id: string): Promise<BuilderRow | undefined> {
    return (await this.#on.reader.findOneBy(BuilderEntity, { id })) ?? undefined;
  }

  async invite(given: string, role: BuilderRole, days: number): Promise<{ builder: BuilderRow; key: string }> {
    const mail = given.toLowerCase();
    const key = randomBytes(24).toString('base64url');
    const invitation = { invitationHash: hashToken(key), invitationEndsAt: this.#on.clock() + days * day };
    const builder = await this.#on.write(async (manager) => {
      const present = await manager.findOneBy(BuilderEntity, { mail });
      if (present !== null) {
        await manager.update(BuilderEntity, { id: present.id }, { ...invitation, role });
        return { ...present, ...invitation, role };
      }
      const row: BuilderRow = {
        id: randomUUID(),
        name: '',
        mail,
        role,
        passwordHash: null,
        ...invitation,
        madeAt: timestamp(this.#on.clock),
      };
      await manager.insert(BuilderEntity, row);
      return row;
    });
    return { builder, key };
  }

  async invited(key: string): Promise<BuilderRow | undefined> {
    const row = await this.#on.reader.findOneBy(BuilderEntity, { invitationHash: hashToken(key) });
    return row !== null && (row.invitationEndsAt ?? 0) > this.#on.clock() ? row : undefined;
  }

  async accept(key: string, name: string, password: string): Promise<BuilderRow | undefined> {
    if ((await this.invited(key)) === undefined) return undefined;
    const passwordHash = await this.#on.passwords.hash(password);
    return this.#on.write(async (manager) => {
      const row = await manager.findOneBy(BuilderEntity, { invitationHash: hashToken(key) });
      if (row === null) return undefined;
      const change = { name, passwordHash, invitationHash: null, invitationEndsAt: null };
      await manager.update(BuilderEntity, { id: row.id }, change);
      return { ...row, ...change };
    });
  }

  async signIn(mail: string, password: string): Promise<BuilderRow | undefined> {
    const row = await this.#on.reader.findOneBy(BuilderEntity, { mail: mail.toLowerCase() });
    const { fits } = await this.#on.passwords.check(password, row?.passwordHash ?? undefined);
    return fits ? (row ?? undefined) : undefined;
  }

  async setRole(id: string, role: BuilderRole): Promise<boolean> {
    return (await this.#on.write((manager) => manager.update(BuilderEntity, { id }, { role }))).affected === 1;
  }

  async remove(id: string): Promise<boolean> {
    return (await this.#on.write((manager) => manager.delete(BuilderEntity, { id }))).affected === 1;
  }
}
