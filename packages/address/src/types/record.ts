import { declaredTextLimits } from '../declare/declared-text-limits.ts';
import { DeclarationError, type DeclaredType } from '../declare/declared-type.ts';
import { suggest } from '../explain/near.ts';
import { refusalCode, refusalData, refuse } from '../outcome.ts';
import { parameter, type CommonOptions, type Exactly, type Made, type Parameter } from '../parameter.ts';
import { decode, encode } from '../percent.ts';
import { limitText, type TextLimits } from './text-limits.ts';

/** Longest key, in code points. */
const greatestLength = 200;

export interface RecordOptions extends CommonOptions<string>, Omit<TextLimits, 'minLength'> {}

/** The key of a record. That it has a key's form is settled here; whether there is such a record, when it is loaded. */
export function record<const Options extends RecordOptions = object>(options?: Exactly<Options, RecordOptions>): Made<string, Options> {
  const accepts = limitText({ ...options, minLength: 1 }, greatestLength);
  return parameter(
    'record',
    options,
    (source, from, to) => {
      const value = decode(source, from, to);
      return value !== undefined && accepts(value) ? value : undefined;
    },
    (value) => (typeof value !== 'string' ? refuse('not-a-key') : accepts(value) ? encode(value) : undefined),
  );
}

/**
 * The same parameter that also takes what once named a record; which record that was, its load tells. Such a key is
 * written too: an address is rewritten, after the app has moved, before anything is loaded.
 */
function withFormerKeys(present: Parameter<string>, former: readonly Parameter<string>[]): Parameter<string> {
  const firstOf = (take: (one: Parameter<string>) => string | undefined): string | undefined => {
    const taken = take(present);
    if (taken !== undefined) return taken;
    const [code, data] = [refusalCode, refusalData];
    for (const one of former) {
      const formerly = take(one);
      if (formerly !== undefined) return formerly;
    }
    return refuse(code, data);
  };
  return {
    ...present,
    read: (source, from, to) => firstOf((one) => one.read(source, from, to)),
    write: (value) => firstOf((one) => one.write(value)),
  };
}

/** `type: record` in an app file: the collection says what its keys look like. */
export const declaredRecord: DeclaredType = {
  attributes: ['of', 'by', 'tied'],
  inLists: true,
  make(declaration, { collections }) {
    const { of, by } = declaration;
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
    const optionsOf = (field: string): RecordOptions => {
      const { maxLength, pattern } = collection.fields[field] ?? {};
      return { ...declaration, ...declaredTextLimits({ minLength: 1, maxLength, pattern }, greatestLength) } as RecordOptions;
    };
    const present = by ?? collection.keyField;
    const formerly = (collection.formerKeys ?? []).filter((field) => field !== present && Object.hasOwn(collection.fields, field));
    const made = record(optionsOf(present));
    return formerly.length === 0
      ? made
      : withFormerKeys(
          made,
          formerly.map((field) => record(optionsOf(field))),
        );
  },
};
