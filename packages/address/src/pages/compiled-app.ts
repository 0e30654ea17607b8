import type { ChoicesLists, CollectionShape, ParameterDeclaration, ParameterValue } from '../declare/declaration.ts';
import type { AddressTemplate } from '../declare/parse-template.ts';
import type { Parameter } from '../parameter.ts';
import type { Template } from '../template.ts';
import type { CallContext } from './call-context.ts';
import type { PageFinder } from './page-finder.ts';

/** What addresses depend on in an app; the app file's definition is one of these. */
export interface AddressableApp {
  app: string;
  mount: string;
  /** IANA name of the time zone in which “today” is meant; UTC when left out. */
  timeZone?: string | undefined;
  choices?: ChoicesLists | undefined;
  collections?: Readonly<Record<string, CollectionShape>> | undefined;
  /** Query parameters of every page, whose values every link in the app carries on: a language, say. */
  parameters?: Readonly<Record<string, ParameterDeclaration>> | undefined;
  pages: Readonly<Record<string, AddressablePage>>;
  /** Where the app was mounted in the past; addresses there lead to today's. */
  formerMounts?: readonly string[] | undefined;
  /** Addresses that are no more. */
  gone?: readonly GoneAddress[] | undefined;
}

/** An address that is no more and is kept from being taken by another page. */
export interface GoneAddress {
  /** Its template; the names of parameters say nothing, and a query is not looked at. */
  address: string;
  /** What visitors are told. */
  reason?: string | undefined;
}

/** An address template of the past, alone or with values that it implies. */
export type FormerAddress = string | { readonly address: string; readonly values: Readonly<Record<string, unknown>> };

export interface AddressablePage {
  address: string;
  parameters?: Readonly<Record<string, ParameterDeclaration>> | undefined;
  /** Names that the page had in the past. */
  formerNames?: readonly string[] | undefined;
  /** Address templates that the page had in the past, with the names that its parameters have today. */
  formerAddresses?: readonly FormerAddress[] | undefined;
}

/** An app whose addresses can be read and written. Made by `compileApp`. */
export interface CompiledApp {
  name: string;
  /** Where the app is mounted: “” for the root, else “/” and segments, without a “/” at the end. */
  mount: string;
  /** In the same form. */
  formerMounts: readonly string[];
  pages: Map<string, CompiledPage>;
  /** Pages by the names they had in the past. */
  formerPages: Map<string, CompiledPage>;
  finder: PageFinder<Claim | GoneClaim>;
  gone: readonly GoneAddress[];
  /** What calls work with that is not the same for every call. */
  context: CallContext;
}

/** What a path belongs to: a page, by today’s address template or a former one. */
export interface Claim {
  page: CompiledPage;
  /** The names of the parameters that the path’s segments are texts of, in order. */
  path: readonly string[];
  former: boolean;
  /** For a former address: texts of parameters that it implies, percent-encoded. */
  implied?: Readonly<Record<string, string>>;
}

/** A path that is kept from being taken: which of the app's addresses that are gone it is. */
export interface GoneClaim {
  gone: number;
}

export interface CompiledPage {
  name: string;
  template: AddressTemplate;
  /** The same page as the library reads and writes it, the app's own parameters included. */
  page: Template;
  /** Every parameter by its name, path parameters first, then the query in written order. */
  parameters: CompiledParameter[];
  byName: Map<string, CompiledParameter>;
  path: CompiledParameter[];
  query: CompiledParameter[];
  /** Whether a value may act once, at arrival, or be remembered for the visit: then it leaves the address. */
  leavesAddress: boolean;
}

export interface CompiledParameter {
  name: string;
  place: 'path' | 'query';
  declaration: ParameterDeclaration;
  /** Reads and writes what stands in the address. */
  parameter: Parameter;
  /** Reads and writes the value itself; another one only where the address holds it sealed. */
  plain: Parameter;
  sealed: boolean;
  required: boolean;
  /** The default, as it is at this moment: “today” is another day tomorrow. */
  fallback: (() => ParameterValue | undefined) | undefined;
  refuses: boolean;
  /** What a link writes that gives no value. */
  inNewLinks: ParameterValue | undefined;
  resets: readonly string[];
  step: boolean;
  /** Every link in the app carries its value on. */
  carried: boolean;
  /** Taken from the address of arrival, and remembered for the visit instead of standing in addresses. */
  remembered: boolean;
}
