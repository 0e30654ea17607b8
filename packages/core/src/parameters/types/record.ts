import { suggest } from '../../near.ts';
import { DeclarationError, Refusal, type ParameterType } from '../codec.ts';
import { limitText } from './text-limits.ts';

/** Longest key, in code points. */
const greatestLength = 200;

/** The key of a record. That it has a key's form is settled here; whether there is such a record, when it is loaded. */
export const record: ParameterType = {
  attributes: ['of', 'by'],
  prepare({ of, by }, { collections }) {
    const collection = of === undefined ? undefined : collections[of];
    if (of === undefined || collection === undefined) {
      throw new DeclarationError(
        'of',
        of === undefined ? 'collection-missing' : 'unknown-collection',
        of === undefined ? 'A record needs a collection.' : `There is no collection “${of}”.`,
        of === undefined ? 'Name one with “of”.' : suggest(of, Object.keys(collections)),
      );
    }
    if (by !== undefined && !Object.hasOwn(collection.fields, by)) {
      throw new DeclarationError(
        'by',
        'unknown-field',
        `The collection “${of}” has no field “${by}”.`,
        suggest(by, Object.keys(collection.fields)),
      );
    }
    const field = collection.fields[by ?? collection.key];
    const refuse = limitText({ minLength: 1, maxLength: field?.maxLength, pattern: field?.pattern }, greatestLength);
    return {
      read: (text) => refuse(text) ?? text,
      write(value) {
        if (typeof value !== 'string') return new Refusal('not-a-key', 'It is not a record’s key.');
        return refuse(value) ?? value;
      },
    };
  },
};
