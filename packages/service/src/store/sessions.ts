/** When a session ends, in milliseconds: so long after its beginning, and so long after it was last used. */
export interface SessionLimits {
  age: number;
  idle: number;
}

/** Signed-in browsers. A scope is `owner` for the console, else `live:APP` or `draft:APP`. */
export interface SessionStore {
  /** Begins a session. @returns the token for the browser, which is kept nowhere else */
  begin(scope: string, login: string, limits: SessionLimits): Promise<string>;
  /**
   * Who is signed in with this token, in this scope; undefined when nobody is or the session has ended. To be asked
   * keeps the session alive.
   */
  login(scope: string, token: string | undefined): Promise<string | undefined>;
  /** Who was signed in with this token, although the session has ended within the last day. */
  formerLogin(scope: string, token: string | undefined): Promise<string | undefined>;
  /** Ends every session of a person in these scopes, in every browser. @returns how many there were */
  endAll(scopes: readonly string[], login: string): Promise<number>;
  /** Ends the sessions of everybody in a scope. @returns how many there were */
  endScope(scope: string): Promise<number>;
  end(token: string | undefined): Promise<void>;
}
