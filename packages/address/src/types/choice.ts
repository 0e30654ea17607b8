import { DeclarationError, type DeclaredType } from '../declare/declared-type.ts';
import { suggest } from '../explain/near.ts';
import { parameter, type CommonOptions, type Exactly, type Made } from '../parameter.ts';
import type { ChoiceDefinition } from '../values.ts';
import { oneOf } from './one-of.ts';

/** The values of a choice: alone, or with their labels. */
export type Choices = readonly string[] | Readonly<Record<string, ChoiceDefinition>>;
type Value<Values extends Choices> = Values extends readonly (infer Name extends string)[] ? Name : keyof Values & string;

/** One of some values. */
export function choice<const Values extends Choices, const Options extends CommonOptions<Value<Values>> = object>(
  values: Values,
  options?: Exactly<Options, CommonOptions<Value<Values>>>,
): Made<Value<Values>, Options> {
  const names = (Array.isArray(values) ? values : Object.keys(values)) as Value<Values>[];
  // A label that is a text, and a value without a label, have no such property.
  const former = Object.entries(values as Readonly<Record<string, Partial<Exclude<ChoiceDefinition, string>>>>).flatMap(
    ([value, { formerValues }]) => formerValues?.map((name) => [name, value as Value<Values>] as const) ?? [],
  );
  const { read, write } = oneOf(names, former);
  return parameter('choice', options, read, write, { of: values });
}

/** `type: choice` in an app file: `of` names a choices list. */
export const declaredChoice: DeclaredType = {
  attributes: ['of'],
  inLists: true,
  make(declaration, { choices }) {
    const { of } = declaration;
    const list = of === undefined || !Object.hasOwn(choices, of) ? undefined : choices[of];
    if (of === undefined || list === undefined) {
      throw new DeclarationError(
        'of',
        of === undefined ? 'choices-missing' : 'unknown-choices',
        of === undefined ? 'A choice needs a choices list.' : `There is no choices list “${of}”.`,
        of === undefined ? 'Name one with “of”.' : suggest(of, Object.keys(choices)),
      );
    }
    return choice(list, declaration as CommonOptions<string>);
  },
};

/** `type: page` in an app file: the name of one of the app's pages. */
export const declaredPage: DeclaredType = {
  attributes: [],
  inLists: true,
  make: (declaration, { pages }) => ({ ...choice(pages, declaration as CommonOptions<string>), type: 'page' }),
};
