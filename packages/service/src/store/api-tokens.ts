import type { Scope } from '@pallmist/api';

/** A token that the owner made for a program, without the token itself. */
export interface ApiToken {
  id: string;
  name: string;
  scopes: readonly Scope[];
  /** The only app that it is for; null for all. */
  app: string | null;
  /** RFC 3339, UTC. */
  madeAt: string;
  /** RFC 3339, UTC; null while it does not end by itself. */
  endsAt: string | null;
  /** YYYY-MM-DD, UTC; null before it was ever used. */
  usedOn: string | null;
}

/** Tokens with scopes. Only their hashes are kept. */
export interface ApiTokenStore {
  /** The newest first. */
  list(): Promise<ApiToken[]>;
  /** @param days until it ends; never when left out. @returns the token too, which is kept nowhere */
  make(given: Pick<ApiToken, 'name' | 'scopes' | 'app'>, days: number | undefined): Promise<{ made: ApiToken; token: string }>;
  /** Replaces a token’s secret and extends it by its original lifetime; the old secret stops working at once. */
  renew(id: string): Promise<{ made: ApiToken; token: string } | undefined>;
  end(id: string): Promise<boolean>;
  /** The token with this text, unless it has ended; notes the day. */
  use(token: string): Promise<ApiToken | undefined>;
}
