/** Milliseconds since 1970, as the machine says. */
export type WallClock = () => number;

/**
 * The one place from which the service takes the time, so that tests can set it. What is kept on disk has a time of the day;
 * limits and waits use the steady time, for somebody may correct the machine’s clock, by hours too.
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
