import type { Person } from '@pallmist/core';
import type { DataSource, Repository } from 'typeorm';
import { PersonEntity, type PersonRow } from './entities/index.ts';
import { hashPassword, passwordFits } from './passwords.ts';

/** Somebody who is let in, or gets a new password. */
export interface NewPerson {
  name: string;
  password: string;
  roles: string[];
  /** Where links go that let them in without the password. */
  mail?: string | undefined;
}

/** The people who may sign in, app by app. */
export class PeopleStore {
  readonly #people: Repository<PersonRow>;

  constructor(source: DataSource) {
    this.#people = source.getRepository(PersonEntity);
  }

  async put(app: string, login: string, { name, password, roles, mail }: NewPerson): Promise<void> {
    await this.#people.save({
      app,
      login,
      name,
      passwordHash: await hashPassword(password),
      roles: JSON.stringify(roles),
      mail: mail?.toLowerCase() ?? null,
    });
  }

  /** Lets somebody in who has not been there. @returns false when the name is taken, in whichever capitals */
  async add(app: string, login: string, name: string, password: string, roles: string[]): Promise<boolean> {
    const passwordHash = await hashPassword(password);
    const taken = await this.#people
      .createQueryBuilder('person')
      .where('person.app = :app AND lower(person.login) = lower(:login)', { app, login })
      .getExists();
    if (taken) return false;
    await this.#people.insert({ app, login, name, passwordHash, roles: JSON.stringify(roles), mail: null });
    return true;
  }

  async find(app: string, login: string): Promise<Person | undefined> {
    const row = await this.#people.findOneBy({ app, login });
    return row ? asPerson(row) : undefined;
  }

  /**
   * Everybody whose mail address this is. The address that is kept goes with each: a typed one may look the same, or be
   * the same in small letters (the Kelvin sign is a small k), and still be somebody else’s.
   */
  async byMail(app: string, typed: string): Promise<{ person: Person; mail: string }[]> {
    const rows = await this.#people.findBy({ app, mail: typed.toLowerCase() });
    return rows.map((row) => ({ person: asPerson(row), mail: row.mail ?? '' }));
  }

  /** Whether the name and the password belong together; as slow for a name that there is not. */
  async mayEnter(app: string, login: string, password: string): Promise<boolean> {
    const row = await this.#people.findOneBy({ app, login });
    return passwordFits(password, row?.passwordHash);
  }
}

const asPerson = (row: PersonRow): Person => ({ login: row.login, name: row.name, roles: JSON.parse(row.roles) as string[] });
