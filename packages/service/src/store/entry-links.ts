/** The links of mails that let a person in, once. */
export interface EntryLinkStore {
  /**
   * @param wanted where the person meant to go
   * @param lifetime milliseconds
   * @returns the token for the mail, which is kept nowhere else; undefined when so many are open that another is not sent
   */
  make(scope: string, login: string, wanted: string | undefined, lifetime: number): Promise<string | undefined>;
  /** Whom a token would let in; undefined when it has been used, is too old, or never was. */
  login(scope: string, token: string): Promise<string | undefined>;
  /** Ends all links of a person in these scopes. */
  endAll(scopes: readonly string[], login: string): Promise<void>;
  /** Uses a token up, and with it every other that the person has. */
  take(scope: string, token: string): Promise<{ login: string; wanted: string | undefined } | undefined>;
}
