/** Everything that Pallmist throws for a caller to handle. The code stays the same; the message is for people and may change. */
export abstract class PallmistError extends Error {
  /** Stable, in lower case with dashes. */
  abstract readonly code: string;
}
