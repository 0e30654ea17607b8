/** Milliseconds since 1970. The one place from which the service takes the time, so that tests can set it. */
export type Clock = () => number;

export const systemClock: Clock = () => Date.now();

/** A moment in RFC 3339, UTC. */
export const timestamp = (clock: Clock): string => new Date(clock()).toISOString();

/** The day in UTC, YYYY-MM-DD. */
export const utcDay = (clock: Clock): string => timestamp(clock).slice(0, 10);
