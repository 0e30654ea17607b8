import { readAddress, writeAddress, type CompiledApp, type Problem } from '@pallmist/core';

/** An address as it is for sharing, below the app’s mount; or why it is none. */
export type Shareable = { page: string; address: string } | { problems: readonly Problem[] };

/** Reads an address, and writes what of it is for sharing. Kept below the app's mount, it goes on when the app moves. */
export function shareable(app: CompiledApp, address: string): Shareable {
  const reading = readAddress(app, address);
  if (reading.page === undefined || reading.status !== 'page') return { problems: reading.problems };
  // What the address tells of the visit, its button has put there.
  const written = writeAddress(app, reading.page, reading.values, { forSharing: true, tellsVisit: true });
  if (written.address === undefined) return { problems: written.problems };
  const hash = reading.fragment === undefined ? '' : `#${reading.fragment}`;
  return { page: reading.page, address: written.address.slice(app.mount.length) + hash };
}
