import { allParameterTypes } from '../../compile-with-all-types.ts';
import { rangeTypeNames } from '@pallmist/address/declare';
import { parameterTypeNames, type ParameterTypeName } from '../../types/names.ts';

interface TypeRule {
  /** What a declaration of the type cannot do without, as a JSON Schema. */
  readonly needs?: object;
  /** What its default can be, where that is only one kind of JSON. */
  readonly default?: object;
}

const rules: Record<ParameterTypeName, TypeRule> = {
  text: { default: { type: 'string' } },
  integer: { default: { type: 'integer' } },
  number: { default: { type: 'number' } },
  boolean: { default: { type: 'boolean' } },
  date: { default: { type: 'string' } },
  datetime: { default: { type: 'string' } },
  choice: { needs: { required: ['of'] }, default: { type: 'string' } },
  record: { needs: { required: ['of'] } },
  page: { default: { type: 'string' } },
  colour: { default: { type: 'string' } },
  sort: { needs: { anyOf: [{ required: ['of'] }, { required: ['fields'] }] } },
  range: { needs: { required: ['of'], properties: { of: { enum: [...rangeTypeNames] } } } },
  list: { needs: { required: ['items'] } },
  packed: {},
};

/** Every attribute that only some types have. */
const special = [...new Set(parameterTypeNames.flatMap((name) => allParameterTypes[name].attributes))];

/** For each type of parameter, by a JSON Schema: the attributes that say nothing about it, what it needs, what its default is. */
export const parameterRules: readonly object[] = parameterTypeNames.map((type) => {
  const { needs, default: given } = rules[type];
  const without = special.filter((attribute) => !(allParameterTypes[type].attributes as readonly string[]).includes(attribute));
  const properties = Object.fromEntries(without.map((attribute) => [attribute, false]));
  return {
    if: { properties: { type: { const: type } }, required: ['type'] },
    then: {
      ...(needs === undefined ? {} : { allOf: [needs] }),
      properties: given === undefined ? properties : { ...properties, default: given },
    },
  };
});
