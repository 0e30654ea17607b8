import { inEnglish, type Say } from '@pallmist/app';
import { dictionary } from '@zxcvbn-ts/language-common';

const shortest = 8;
const longest = 200;

/** The commonest passwords of the world, in small letters. */
let common: Set<string> | undefined;

/**
 * Why a password is refused (NIST SP 800-63B, 5.1.1.2: a length, no common ones, nothing of the account itself).
 * @param known the person’s login name and name
 * @returns a sentence; undefined for a password that is taken
 */
export function passwordProblem(password: string, known: readonly string[], say: Say = inEnglish): string | undefined {
  const length = [...password].length;
  if (length < shortest) return say('It needs at least {0} characters.', shortest);
  if (password.length > longest) return say('It may have at most {0} characters.', longest);
  const small = password.toLowerCase();
  common ??= new Set(dictionary['passwords-common'].filter((one): one is string => typeof one === 'string' && one.length >= shortest));
  if (common.has(small) || new Set(small).size < 3) return say('This password is too common. Choose another one.');
  if (known.some((name) => name !== '' && small === name.toLowerCase())) return say('It is the same as the name. Choose another one.');
  return undefined;
}
