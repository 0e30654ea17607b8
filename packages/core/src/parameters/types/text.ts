import { Refusal, type ParameterType } from '../codec.ts';
import { limitText } from './text-limits.ts';

/** Longest text that an address may carry in one parameter, in code points. */
const greatestLength = 2000;

/** Any text, kept to the last character. */
export const text: ParameterType = {
  attributes: ['blank', 'minLength', 'maxLength', 'pattern'],
  prepare(declaration) {
    const refuse = limitText(declaration, greatestLength);
    return {
      readsBlank: declaration.blank !== 'absent',
      read: (given) => refuse(given) ?? given,
      write: (value) => (typeof value === 'string' ? (refuse(value) ?? value) : new Refusal('not-a-text', 'It is not a text.')),
    };
  },
};
