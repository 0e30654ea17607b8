/** Milliseconds since 1970, as the machine says. */
export type WallClock = () => number;

/**
 * The service takes the time only from here, so that tests can set it. Records on disk have the system time. Limits and waits
 * use the steady time, since an administrator can change the system time by hours.
 */
export interface Clock {
  (): number;
  /** Milliseconds since some moment, which only ever go on. */
  readonly steady: () => number;
}

export const systemClock: Clock = Object.assign(() => Date.now(), { steady: () => performance.now() });

/** A moment in RFC 3339, UTC. */
export const timestamp = (clock: WallClock): string => new Date(clock()).toISOString();

/** The day in UTC, YYYY-MM-DD. */
export const utcDay = (clock: WallClock): string => timestamp(clock).slice(0, 10);
