/** A signed-in person, as pages and expressions see them. */
export interface Person {
  login: string;
  name: string;
  roles: string[];
}

/** Why somebody is sent to the sign-in page; the app file has a text for each. */
export const reasons = ['needed', 'wrong', 'left', 'busy'] as const;
export type Reason = (typeof reasons)[number];

/** The gate: whether this person may see this page, or why not. */
export function passGate(
  page: { admit?: 'everyone' | 'signed-in' | undefined },
  person: Person | undefined,
): { admitted: true } | { admitted: false; why: Reason } {
  if (page.admit !== 'signed-in' || person !== undefined) return { admitted: true };
  return { admitted: false, why: 'needed' };
}
