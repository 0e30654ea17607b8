/**
 * What a table holds under a name that came from outside. A plain look-up would also find what every object inherits:
 * “constructor”, “__proto__”. A lint rule demands it where names from requests, files and records are looked up.
 */
export const own = <Value>(table: Readonly<Record<string, Value>> | undefined, name: string): Value | undefined =>
  table !== undefined && Object.hasOwn(table, name) ? table[name] : undefined;
