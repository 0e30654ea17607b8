import type { Found, PromisedPage } from './promised-page.ts';

/** Results that are kept of a version: of the draft, and of repairs that are tried on it. */
const most = 4;

interface Known {
  /** What today's page, and the addresses of all others, are: the result depends on nothing else. */
  today: string;
  addresses: string;
  found: readonly Found[];
}

const known = new WeakMap<PromisedPage, Known[]>();

/** What was found of a version when it was last compared with the same; an edit of one page leaves all others as they were. */
export function knownResult(version: PromisedPage, today: string, addresses: string, compare: () => readonly Found[]): readonly Found[] {
  const results = known.get(version) ?? [];
  const present = results.find((one) => one.addresses === addresses && one.today === today);
  if (present !== undefined) return present.found;
  const found = compare();
  known.set(version, [{ today, addresses, found }, ...results.slice(0, most - 1)]);
  return found;
}
