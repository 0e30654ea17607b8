import type { Person } from '@pallmist/app';

/** A person who is let in, or gets a new password. */
export interface NewPerson {
  name: string;
  password: string;
  roles: string[];
  /** Where links go that let them in without the password. */
  mail?: string | undefined;
}

export interface KnownPerson extends Person {
  mail?: string;
}

/** The people who may sign in, app by app. Login names are compared by PRECIS (RFC 8265). */
export interface PeopleStore {
  /** Lets a person in, or changes what is known of them. @returns whether they were there before */
  put(app: string, login: string, person: NewPerson): Promise<boolean>;
  /** Lets a person in who has not been there. @returns false when the login name is taken */
  add(app: string, login: string, person: NewPerson): Promise<boolean>;
  /** @returns false when there is nobody of the name */
  remove(app: string, login: string): Promise<boolean>;
  find(app: string, login: string): Promise<Person | undefined>;
  /** Everybody, by login name. */
  list(app: string): Promise<KnownPerson[]>;
  /** Everybody whose mail address this is, with the address that is kept: a typed one may look the same and be another's. */
  byMail(app: string, typed: string): Promise<{ person: Person; mail: string }[]>;
  /** The person whose login name and password these are; as slow for a name that there is not. */
  signIn(app: string, login: string, password: string): Promise<Person | undefined>;
}
