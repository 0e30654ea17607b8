/** Letters, digits and marks of any script, and a few signs. */
const allowed = /^[\p{L}\p{N}\p{M}._@+-]{1,100}$/u;

/** Letters and signs in full and half width, which look like those of ordinary width (Unicode, East Asian Width). */
const otherWidth = /[\uff01-\uffee\u3000]/g;

/**
 * A login name as it is compared: the UsernameCaseMapped profile of PRECIS (RFC 8265, 3.3), so that names that differ only
 * in width, capitals or composition are one.
 */
export const loginKey = (login: string): string =>
  login
    .replaceAll(otherWidth, (sign) => sign.normalize('NFKC'))
    .toLowerCase()
    .normalize('NFC');

const rightToLeft = /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;
const leftToRight = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]/u;

/** Whether a name can be signed in with: of allowed signs, and not in two directions at once (RFC 5893). */
export function isLoginName(login: string): boolean {
  const key = loginKey(login);
  return allowed.test(key) && !(rightToLeft.test(key) && leftToRight.test(key));
}

/** What a login name is made of, for people. */
export const loginNameRule = 'A login name has up to 100 letters and digits, and the signs . _ @ + - only.';
