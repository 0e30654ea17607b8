import type { Person } from '@pallmist/app';
import { loginKey } from '../../people/login-names.ts';
import type { KnownPerson, NewPerson, PeopleStore } from '../people.ts';
import { isUniqueViolation } from '../sqlite/driver.ts';
import type { Connection } from './connection.ts';
import { PersonEntity, type PersonRow } from './entities.ts';

export class TypeormPeopleStore implements PeopleStore {
  readonly #on: Connection;

  constructor(on: Connection) {
    this.#on = on;
  }

  async put(app: string, login: string, person: NewPerson): Promise<boolean> {
    const row = await this.#asRow(app, login, person);
    return this.#on.write(async (manager) => {
      const present = await manager.findOneBy(PersonEntity, { app, loginKey: row.loginKey });
      if (present === null) await manager.insert(PersonEntity, row);
      else await manager.update(PersonEntity, { app, loginKey: row.loginKey }, row);
      return present !== null;
    });
  }

  async add(app: string, login: string, person: NewPerson): Promise<boolean> {
    const row = await this.#asRow(app, login, person);
    try {
      await this.#on.write((manager) => manager.insert(PersonEntity, row));
      return true;
    } catch (error) {
      if (isUniqueViolation(error)) return false;
      throw error;
    }
  }

  async remove(app: string, login: string): Promise<boolean> {
    return (await this.#on.write((manager) => manager.delete(PersonEntity, { app, loginKey: loginKey(login) }))).affected === 1;
  }

  async find(app: string, login: string): Promise<Person | undefined> {
    const row = await this.#row(app, login);
    return row === undefined ? undefined : asPerson(row);
  }

  async list(app: string): Promise<KnownPerson[]> {
    const rows = await this.#on.reader.find(PersonEntity, { where: { app }, order: { loginKey: 'ASC' } });
    return rows.map((row) => ({ ...asPerson(row), ...(row.mail === null ? {} : { mail: row.mail }) }));
  }

  async byMail(app: string, typed: string): Promise<{ person: Person; mail: string }[]> {
    const rows = await this.#on.reader.findBy(PersonEntity, { app, mail: typed.toLowerCase() });
    return rows.map((row) => ({ person: asPerson(row), mail: row.mail ?? '' }));
  }

  async signIn(app: string, login: string, password: string): Promise<Person | undefined> {
    const row = await this.#row(app, login);
    const { fits, outdated } = await this.#on.passwords.check(password, row?.passwordHash);
    if (!fits || row === undefined) return undefined;
    if (outdated) {
      const passwordHash = await this.#on.passwords.hash(password);
      await this.#on.write((manager) => manager.update(PersonEntity, { app, login: row.login }, { passwordHash }));
    }
    return asPerson(row);
  }

  async #asRow(app: string, login: string, { name, password, roles, mail }: NewPerson): Promise<PersonRow> {
    return {
      app,
      login,
      loginKey: loginKey(login),
      name,
      passwordHash: await this.#on.passwords.hash(password),
      roles: JSON.stringify(roles),
      mail: mail?.toLowerCase() ?? null,
    };
  }

  async #row(app: string, login: string): Promise<PersonRow | undefined> {
    return (await this.#on.reader.findOneBy(PersonEntity, { app, loginKey: loginKey(login) })) ?? undefined;
  }
}

const asPerson = (row: PersonRow): Person => ({ login: row.login, name: row.name, roles: JSON.parse(row.roles) as string[] });
