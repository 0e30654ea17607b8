import { own } from '../own.ts';
import { canonicalJson } from './canonical-json.ts';
import type { Json } from '@pallmist/address/declare';
import { linearSearch } from '@pallmist/address/patterns';
import { resolveReference } from './check-schema.ts';
import type { Schema } from './keywords.ts';

type JsonMap = { [name: string]: Json };
type Rules = Exclude<Schema, boolean>;

/** Values nest no deeper than this. */
const deepest = 200;

/** Why a value does not fit a schema, in words, with its place in the value; undefined where it fits. */
export type Misfit = string | undefined;

const isMap = (value: Json): value is JsonMap => typeof value === 'object' && value !== null && !Array.isArray(value);

function typeOf(value: Json): string {
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'array';
  return typeof value;
}

const spoken: Record<string, string> = {
  object: 'a map',
  array: 'a list',
  string: 'a text',
  number: 'a number',
  integer: 'a whole number',
  boolean: 'true or false',
  null: 'null',
};

/**
 * Checks values against a schema that `checkSchema` has found nothing wrong with. Never throws; the time is linear in the
 * value for a given schema, since no part of it is checked twice by the same part of the schema.
 */
export function validator(root: Schema): (value: Json) => Misfit {
  return (value) => new Validation(root).check(root, value, '', 0);
}

class Validation {
  readonly #root: Schema;
  readonly #known = new Map<Rules, Map<object, Misfit>>();

  constructor(root: Schema) {
    this.#root = root;
  }

  check(schema: Schema, value: Json, place: string, depth: number): Misfit {
    if (schema === true) return undefined;
    if (schema === false) return this.#at(place, 'nothing may stand here');
    if (depth > deepest) return this.#at(place, 'it is nested too deep');
    if (typeof value !== 'object' || value === null) return this.#checkAll(schema, value, place, depth);
    let known = this.#known.get(schema);
    if (known === undefined) this.#known.set(schema, (known = new Map<object, Misfit>()));
    if (!known.has(value)) known.set(value, this.#checkAll(schema, value, place, depth));
    return known.get(value);
  }

  #at(place: string, sentence: string): string {
    return `${place === '' ? 'it' : `at ${place}`}: ${sentence}.`;
  }

  #checkAll(schema: Rules, value: Json, place: string, depth: number): Misfit {
    const own =
      this.#checkType(schema, value, place) ??
      (typeof value === 'number' ? this.#checkNumber(schema, value, place) : undefined) ??
      (typeof value === 'string' ? this.#checkText(schema, value, place) : undefined);
    if (own !== undefined) return own;
    const parts = Array.isArray(value)
      ? this.#checkList(schema, value, place, depth)
      : isMap(value)
        ? this.#checkMap(schema, value, place, depth)
        : undefined;
    return parts ?? this.#checkInPlace(schema, value, place, depth);
  }

  #checkType({ type, enum: among, const: only }: Rules, value: Json, place: string): Misfit {
    if (type !== undefined) {
      const types = (Array.isArray(type) ? type : [type]) as string[];
      const is = typeOf(value);
      const fits = types.some((one) => one === is || (one === 'integer' && typeof value === 'number' && Number.isInteger(value)));
      if (!fits) return this.#at(place, `it should be ${types.map((one) => own(spoken, one) ?? one).join(' or ')}`);
    }
    const canonical = among === undefined && only === undefined ? undefined : canonicalJson(value);
    if (Array.isArray(among) && !among.some((one) => canonicalJson(one) === canonical))
      return this.#at(place, 'it is none of the values that are taken');
    if (only !== undefined && canonicalJson(only) !== canonical) return this.#at(place, 'it is not the value that is taken');
    return undefined;
  }

  #checkNumber({ multipleOf, maximum, exclusiveMaximum, minimum, exclusiveMinimum }: Rules, value: number, place: string): Misfit {
    if (typeof maximum === 'number' && value > maximum) return this.#at(place, `it should be at most ${String(maximum)}`);
    if (typeof minimum === 'number' && value < minimum) return this.#at(place, `it should be at least ${String(minimum)}`);
    if (typeof exclusiveMaximum === 'number' && value >= exclusiveMaximum)
      return this.#at(place, `it should be less than ${String(exclusiveMaximum)}`);
    if (typeof exclusiveMinimum === 'number' && value <= exclusiveMinimum)
      return this.#at(place, `it should be more than ${String(exclusiveMinimum)}`);
    if (typeof multipleOf !== 'number') return undefined;
    const times = value / multipleOf;
    // 0.3 is three times 0.1, although no binary fraction says so.
    return Math.abs(times - Math.round(times)) <= Number.EPSILON * Math.max(1, Math.abs(times))
      ? undefined
      : this.#at(place, `it should be a multiple of ${String(multipleOf)}`);
  }

  #checkText({ maxLength, minLength, pattern }: Rules, value: string, place: string): Misfit {
    const length = maxLength === undefined && minLength === undefined ? 0 : [...value].length;
    if (typeof maxLength === 'number' && length > maxLength)
      return this.#at(place, `it should have at most ${String(maxLength)} characters`);
    if (typeof minLength === 'number' && length < minLength)
      return this.#at(place, `it should have at least ${String(minLength)} characters`);
    return typeof pattern === 'string' && !linearSearch(pattern).test(value)
      ? this.#at(place, 'it has not the form that is taken')
      : undefined;
  }

  #checkList(schema: Rules, value: Json[], place: string, depth: number): Misfit {
    const { maxItems, minItems, uniqueItems, prefixItems, items, contains, minContains = 1, maxContains } = schema;
    if (typeof maxItems === 'number' && value.length > maxItems) return this.#at(place, `it should have at most ${String(maxItems)} items`);
    if (typeof minItems === 'number' && value.length < minItems)
      return this.#at(place, `it should have at least ${String(minItems)} items`);
    if (uniqueItems === true && new Set(value.map((item) => canonicalJson(item))).size < value.length)
      return this.#at(place, 'no item may be there twice');
    const first = Array.isArray(prefixItems) ? prefixItems : [];
    for (const [index, item] of value.entries()) {
      const rules = index < first.length ? first[index] : items;
      const misfit = rules === undefined ? undefined : this.check(rules as Schema, item, `${place}/${String(index)}`, depth + 1);
      if (misfit !== undefined) return misfit;
    }
    if (contains === undefined) return undefined;
    const held = value.filter(
      (item, index) => this.check(contains as Schema, item, `${place}/${String(index)}`, depth + 1) === undefined,
    ).length;
    if (typeof minContains === 'number' && held < minContains) return this.#at(place, 'an item that it has to hold is missing');
    return typeof maxContains === 'number' && held > maxContains ? this.#at(place, 'it holds too many of some item') : undefined;
  }

  #checkMap(schema: Rules, value: JsonMap, place: string, depth: number): Misfit {
    const {
      maxProperties,
      minProperties,
      required,
      dependentRequired,
      properties,
      patternProperties,
      additionalProperties,
      propertyNames,
    } = schema;
    const names = Object.keys(value);
    if (typeof maxProperties === 'number' && names.length > maxProperties)
      return this.#at(place, `it should have at most ${String(maxProperties)} entries`);
    if (typeof minProperties === 'number' && names.length < minProperties)
      return this.#at(place, `it should have at least ${String(minProperties)} entries`);
    const needed = [
      ...((required as string[] | undefined) ?? []),
      ...Object.entries((dependentRequired as Record<string, string[]> | undefined) ?? {}).flatMap(([name, others]) =>
        Object.hasOwn(value, name) ? others : [],
      ),
    ];
    const missing = needed.find((name) => !Object.hasOwn(value, name));
    if (missing !== undefined) return this.#at(place, `“${missing}” is missing`);
    const known = (properties as JsonMap | undefined) ?? {};
    const patterns = Object.entries((patternProperties as JsonMap | undefined) ?? {});
    for (const name of names) {
      const item = value[name] as Json;
      const below = `${place}/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`;
      const rules = [
        ...(Object.hasOwn(known, name) ? [known[name]] : []),
        ...patterns.filter(([pattern]) => linearSearch(pattern).test(name)).map(([, rule]) => rule),
      ];
      if (rules.length === 0 && additionalProperties !== undefined) rules.push(additionalProperties);
      const misfit =
        (propertyNames === undefined ? undefined : this.check(propertyNames as Schema, name, below, depth + 1)) ??
        rules.map((rule) => this.check(rule as Schema, item, below, depth + 1)).find((found) => found !== undefined);
      if (misfit !== undefined) return misfit;
    }
    for (const [name, rule] of Object.entries((schema['dependentSchemas'] as JsonMap | undefined) ?? {})) {
      const misfit = Object.hasOwn(value, name) ? this.check(rule as Schema, value, place, depth + 1) : undefined;
      if (misfit !== undefined) return misfit;
    }
    return undefined;
  }

  /** Schemas for the very same value. */
  #checkInPlace(schema: Rules, value: Json, place: string, depth: number): Misfit {
    const check = (inner: unknown) => this.check(inner as Schema, value, place, depth + 1);
    const { $ref, allOf, anyOf, oneOf, not, if: condition, then, else: otherwise } = schema;
    if (typeof $ref === 'string') {
      const target = resolveReference(this.#root, $ref);
      const misfit = target === undefined ? undefined : check(target);
      if (misfit !== undefined) return misfit;
    }
    for (const inner of (allOf as Json[] | undefined) ?? []) {
      const misfit = check(inner);
      if (misfit !== undefined) return misfit;
    }
    if (Array.isArray(anyOf)) {
      const misfits = anyOf.map(check);
      if (misfits.every((misfit) => misfit !== undefined))
        return misfits.length === 1 ? misfits[0] : this.#at(place, 'it fits none of the forms that are taken');
    }
    if (Array.isArray(oneOf)) {
      const fitting = oneOf.filter((inner) => check(inner) === undefined).length;
      if (fitting !== 1)
        return this.#at(
          place,
          fitting === 0 ? 'it fits none of the forms that are taken' : 'it fits several forms of which only one may fit',
        );
    }
    if (not !== undefined && check(not) === undefined) return this.#at(place, 'it has a form that is not taken');
    if (condition === undefined) return undefined;
    const next = check(condition) === undefined ? then : otherwise;
    return next === undefined ? undefined : check(next);
  }
}
