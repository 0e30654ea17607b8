import type { Parameter, Presence, ValueOf } from './parameter.ts';
import { makeTemplate, type Template } from './template.ts';

type Split<List extends string> = List extends `${infer First},${infer Rest}` ? Bare<First> | Split<Rest> : Bare<List>;
type Bare<Name extends string> = Name extends `${infer Start}*` ? Start : Name;
/** Names in the path that every address of the page gives. */
type SegmentNames<Address extends string> = Address extends `${string}{${infer Name}}${infer Rest}`
  ? (Name extends `/${string}` | `?${string}` ? never : Name) | SegmentNames<Rest>
  : never;
type LastName<Address extends string> = Address extends `${string}{/${infer Name}}${string}` ? Name : never;
type QueryNames<Address extends string> = Address extends `${string}{?${infer List}}` ? Split<List> : never;
type Names<Address extends string> = string extends Address ? string : SegmentNames<Address> | LastName<Address> | QueryNames<Address>;

type ResetsIn<P> = P extends { readonly '~resets'?: infer Name } ? Exclude<Name, undefined> : never;

/** The parameters as they are where template and parameters agree; a sentence in the place of each that does not. */
export type Agreeing<Address extends string, Parameters> = {
  [Name in keyof Parameters]: Name extends Names<Address>
    ? [Exclude<ResetsIn<Parameters[Name]>, keyof Parameters>] extends [never]
      ? Parameters[Name]
      : `it resets “${Exclude<ResetsIn<Parameters[Name]>, keyof Parameters> & string}”, which the page does not have`
    : `“${Name & string}” has no place in the template`;
} & (string extends Address
  ? unknown
  : { [Name in Exclude<Names<Address>, keyof Parameters>]: `“${Name}” stands in the template and is not declared` });

/** One page: its address template with its parameters. */
export interface Page<Address extends string = string, Parameters = Record<string, Parameter>> extends Template {
  readonly '~address'?: Address;
  readonly '~parameters'?: Parameters;
}

type PresenceIn<P> = P extends { readonly '~presence'?: infer Given } ? Exclude<Given, undefined> & Presence : never;
type Sure<Address extends string, Parameters> = {
  [Name in keyof Parameters]: Name extends SegmentNames<Address> ? Name : PresenceIn<Parameters[Name]> extends 'optional' ? never : Name;
}[keyof Parameters];
type Needed<Address extends string, Parameters> = {
  [Name in keyof Parameters]: Name extends SegmentNames<Address> ? Name : PresenceIn<Parameters[Name]> extends 'required' ? Name : never;
}[keyof Parameters];
type Flat<Given> = { [Name in keyof Given]: Given[Name] };

/** What a page can count on once its address has been read: every name is there. */
export type PageValues<P> =
  P extends Page<infer Address, infer Parameters>
    ? {
        [Name in keyof Parameters]: Name extends Sure<Address, Parameters>
          ? ValueOf<Parameters[Name]>
          : ValueOf<Parameters[Name]> | undefined;
      }
    : never;

/** What a link to a page gives. */
export type LinkValues<P> =
  P extends Page<infer Address, infer Parameters>
    ? [keyof Parameters] extends [never]
      ? Record<string, never>
      : Flat<
          { [Name in Needed<Address, Parameters>]: ValueOf<Parameters[Name]> } & {
            [Name in Exclude<keyof Parameters, Needed<Address, Parameters>>]?: ValueOf<Parameters[Name]> | null | undefined;
          }
        >
    : never;

/**
 * Declares a page: what stands in its address, and of which type it is.
 * A parameter without a place in the template, or a place without a parameter, does not compile.
 * @param address an address template: literals, `{name}` for a segment, `{/name}` for an optional last segment, and
 *   `{?a,b*}` for the query (a subset of RFC 6570)
 * @throws TypeError for a name in the template that is not declared; everything else is checked by `@pallmist/address/declare`
 */
export function page<const Address extends string, Parameters extends Record<string, object> = Record<never, object>>(
  address: Address,
  parameters?: Parameters & Agreeing<Address, Parameters>,
): Page<Address, Parameters> {
  return makeTemplate(address, (parameters ?? {}) as unknown as Record<string, Parameter>);
}
