/** What stood in a form that was sent when the session had ended. */
export interface HeldTexts {
  /** The address that the form was sent to. */
  address: string;
  form: string;
  /** What was typed, by field. */
  texts: Record<string, string>;
}

/** Where a held form comes from. */
export interface HeldFrom {
  /** The login name of the session that had ended; undefined where none is known. */
  login: string | undefined;
  /** A mark of the network address, not the address itself. */
  network: string;
}

/** What people had typed into forms when their session had ended, until they have signed in again. */
export interface HeldFormStore {
  /** @returns the token for the browser; undefined where this person or network address has too many, or it is too large */
  hold(scope: string, texts: HeldTexts, from: HeldFrom): Promise<string | undefined>;
  /** @param login who is signed in now: what another person typed is not theirs to see */
  find(scope: string, token: string, login: string | undefined): Promise<HeldTexts | undefined>;
  forget(token: string): Promise<void>;
}
