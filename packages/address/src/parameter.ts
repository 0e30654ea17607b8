import type { Join } from './joins.ts';

/** Whether there is a value: a link has to give it, the page can count on it because it has a default, or neither. */
export type Presence = 'required' | 'default' | 'optional';

/** What may be said of a parameter of any type; the guide “Parameters” describes each attribute. */
export interface CommonOptions<Value> {
  required?: boolean | undefined;
  /** The value when the address gives none; a function for one that depends on the day. */
  default?: Value | (() => Value | undefined) | undefined;
  ifWrong?: 'default' | 'refuse' | undefined;
  /** Whether a change is a step that Back undoes; true when left out. */
  step?: boolean | undefined;
  /** Names of parameters that return to their defaults when this one changes. */
  resets?: readonly string[] | undefined;
  once?: boolean | undefined;
  share?: boolean | undefined;
  formerNames?: readonly string[] | undefined;
  label?: string | undefined;
  help?: string | undefined;
  sample?: Value | undefined;
}

/**
 * A parameter: a type with its options. The functions in `types/` create parameters.
 * For every value that `write` accepts, `read` gives an equal value for what was written; neither ever throws.
 */
export interface Parameter<out Value = unknown, out Given extends Presence = Presence, out Resets extends string = string> {
  readonly type: string;
  readonly options: CommonOptions<unknown>;
  /**
   * Reads a stretch of an address, percent-encoded as in a query.
   * @returns undefined where it is refused; `refusalCode` and `refusalData` say why
   */
  readonly read: (text: string, from: number, to: number) => Value | undefined;
  /** The one written form, percent-encoded. @param value anything: callers may be mistaken. @returns undefined where it is refused */
  readonly write: (value: unknown) => string | undefined;
  /** Whether the empty text is a value of its own. */
  readonly blank: boolean;
  /**
   * How several texts, as a form or a template with `*` gives them, become one: `joinItems`, `joinEnds`, or undefined where they
   * contradict each other.
   */
  readonly joins: Join | undefined;
  /** What the type itself was given: the values of a choice, the item of a list. */
  readonly of: unknown;
  /** For the type checker alone. */
  readonly '~value'?: Value;
  readonly '~presence'?: Given;
  readonly '~resets'?: Resets;
}

/** Creates a parameter. Use it to add a type. It percent-encodes its texts with `encode`. @param traits what the simplest types do not have */
export function parameter<Value, Given extends Presence, Resets extends string>(
  type: string,
  options: CommonOptions<unknown> | undefined,
  read: Parameter<Value>['read'],
  write: Parameter['write'],
  traits?: Partial<Pick<Parameter, 'blank' | 'joins' | 'of'>>,
): Parameter<Value, Given, Resets> {
  return { type, options: options ?? {}, read, write, blank: false, joins: undefined, of: undefined, ...traits };
}

/** Refuses attributes that the type does not know. */
export type Exactly<Given, Known> = Given & Record<Exclude<keyof Given, keyof Known>, never>;

/** What the options of a parameter say of its presence. */
export type PresenceOf<Options> = Options extends { default: NonNullable<unknown> | null }
  ? 'default'
  : Options extends { required: true }
    ? 'required'
    : 'optional';

/** The names that a parameter resets. */
export type ResetsOf<Options> = Options extends { resets: readonly (infer Name extends string)[] } ? Name : never;

/** A parameter with these options. */
export type Made<Value, Options> = Parameter<Value, PresenceOf<Options>, ResetsOf<Options>>;

/** The value of a parameter. */
export type ValueOf<P> = P extends { readonly '~value'?: infer Value } ? Exclude<Value, undefined> : never;
