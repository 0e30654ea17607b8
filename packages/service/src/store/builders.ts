/** What a builder may do: look at drafts and try them; change and publish; and, as the owner, invite others and keep keys. */
export type BuilderRole = 'owner' | 'builder' | 'viewer';

/** A builder’s account. */
export interface BuilderRow {
  id: string;
  name: string;
  /** In small letters; no two have the same. */
  mail: string;
  role: BuilderRole;
  /** Null until the invitation is accepted. */
  passwordHash: string | null;
  /** Hash of the key of an invitation that is open. */
  invitationHash: string | null;
  /** Milliseconds since 1970. */
  invitationEndsAt: number | null;
  /** RFC 3339, UTC. */
  madeAt: string;
}

/** The builders’ accounts. The owner of the service is there without one. */
export interface BuilderStore {
  /** All of them, by mail address. */
  list(): Promise<BuilderRow[]>;
  find(id: string): Promise<BuilderRow | undefined>;
  /**
   * Invites a builder; an invitation that is open is replaced.
   * @returns the account and the key of its invitation, which is kept nowhere else
   */
  invite(mail: string, role: BuilderRole, days: number): Promise<{ builder: BuilderRow; key: string }>;
  /** The account that an open invitation is for. */
  invited(key: string): Promise<BuilderRow | undefined>;
  /** Uses up an invitation. @returns undefined when it is not open any more */
  accept(key: string, name: string, password: string): Promise<BuilderRow | undefined>;
  /** The builder whose mail address and password these are; as slow for an address that there is not. */
  signIn(mail: string, password: string): Promise<BuilderRow | undefined>;
  setRole(id: string, role: BuilderRole): Promise<boolean>;
  remove(id: string): Promise<boolean>;
}
