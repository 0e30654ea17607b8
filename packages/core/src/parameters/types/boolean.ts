import { Corrected, Refusal, type ParameterType } from '../codec.ts';

const meant = new Map([
  ['true', true],
  ['1', true],
  ['on', true],
  ['yes', true],
  ['false', false],
  ['0', false],
  ['off', false],
  ['no', false],
]);

/** Yes or no: written `true` and `false`; what forms and people write for it is understood. */
export const boolean: ParameterType = {
  attributes: [],
  prepare: () => ({
    read(text) {
      if (text === 'true') return true;
      if (text === 'false') return false;
      const value = text.length > 16 ? undefined : meant.get(text.trim().toLowerCase());
      return value === undefined ? new Refusal('not-a-boolean', 'It is neither “true” nor “false”.') : new Corrected(value);
    },
    write: (value) => (typeof value === 'boolean' ? String(value) : new Refusal('not-a-boolean', 'It is neither true nor false.')),
  }),
};
