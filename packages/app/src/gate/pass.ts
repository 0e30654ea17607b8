/** A signed-in person, as pages and expressions see them. */
export interface Person {
  login: string;
  name: string;
  roles: string[];
}

/** Why a visitor is sent to the sign-in page. The app file can set a text for each reason. */
export const reasons = [
  'sign-in-needed',
  'wrong-password',
  'signed-out',
  'too-many-tries',
  'other-account',
  'mail-sent',
  'link-expired',
] as const;
export type Reason = (typeof reasons)[number];

/** Whom a page admits: everyone, who is signed in, who has one of the roles, or for whom a condition (CEL) holds. */
export type Admission =
  'everyone' | 'signed-in' | { roles?: readonly string[] | undefined; when?: string | undefined; reason?: string | undefined };

/** What the gate decides: come in; sign in first; or not with this account. */
export type Passage = 'admitted' | 'sign-in' | 'refused';

/** Finds whom a page admits: what it says itself, or the app's gate that it names. */
export function admissionOf(admit: string | Admission | undefined, gates: Readonly<Record<string, Admission>> | undefined): Admission {
  if (typeof admit !== 'string') return admit ?? 'everyone';
  if (admit === 'everyone' || admit === 'signed-in') return admit;
  // A gate that there is not lets nobody in: the check has said so.
  return gates?.[admit] ?? { roles: [] };
}

/**
 * The gate: whether this person may see this page.
 * @param holds evaluates a condition on person, parameters and records; where it cannot be evaluated it does not hold
 */
export function passGate(admission: Admission, person: Person | undefined, holds: (condition: string) => boolean): Passage {
  if (admission === 'everyone') return 'admitted';
  if (person === undefined) {
    // A condition may hold for anybody, as "record.note.public" does.
    const open = typeof admission === 'object' && admission.roles === undefined && admission.when !== undefined && holds(admission.when);
    return open ? 'admitted' : 'sign-in';
  }
  if (admission === 'signed-in') return 'admitted';
  const { roles, when } = admission;
  const hasRole = roles === undefined || roles.some((role) => person.roles.includes(role));
  return hasRole && (when === undefined || holds(when)) ? 'admitted' : 'refused';
}
