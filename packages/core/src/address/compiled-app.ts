import type { Codec } from '../parameters/codec.ts';
import type { ChoiceDefinition, CollectionShape, ParameterDeclaration, ParameterValue } from '../parameters/declaration.ts';
import type { PageFinder } from './page-finder.ts';
import type { AddressTemplate } from './template.ts';

/** What the address part needs of an app; the app file's definition is one of these. */
export interface AddressableApp {
  app: string;
  mount: string;
  /** IANA name of the time zone in which “today” is meant; UTC when left out. */
  timeZone?: string | undefined;
  choices?: Readonly<Record<string, Readonly<Record<string, ChoiceDefinition>>>> | undefined;
  collections?: Readonly<Record<string, CollectionShape>> | undefined;
  /** Query parameters of every page, whose values every link in the app carries on: a language, say. */
  parameters?: Readonly<Record<string, ParameterDeclaration>> | undefined;
  pages: Readonly<Record<string, AddressablePage>>;
}

export interface AddressablePage {
  address: string;
  parameters?: Readonly<Record<string, ParameterDeclaration>> | undefined;
  /** Names that the page had in the past. */
  formerly?: readonly string[] | undefined;
  /** Address templates that the page had in the past, with the names that its parameters have today. */
  formerAddresses?: readonly string[] | undefined;
}

/** An app whose addresses can be read and written. Made by `compileApp`. */
export interface CompiledApp {
  name: string;
  /** Where the app is mounted: “” for the root, else “/” and segments, without a “/” at the end. */
  mount: string;
  pages: Map<string, CompiledPage>;
  /** Pages by the names they had in the past. */
  formerPages: Map<string, CompiledPage>;
  finder: PageFinder<Claim>;
}

/** What a path belongs to: a page, by today’s address template or a former one. */
export interface Claim {
  page: CompiledPage;
  /** The parameters that the path’s captured segments are texts of, in order. */
  path: readonly CompiledParameter[];
  former: boolean;
}

export interface CompiledPage {
  name: string;
  template: AddressTemplate;
  /** Every parameter by its name, path parameters first, then the query in written order. */
  parameters: CompiledParameter[];
  byName: Map<string, CompiledParameter>;
  path: CompiledParameter[];
  query: CompiledParameter[];
  /** Where a query parameter stands in `query`, by its name today and by its former names. */
  queryIndex: Map<string, number>;
  /** Whether a value may act once, at arrival, or be remembered for the visit: then it leaves the address. */
  leavesAddress: boolean;
}

/** What holds when an address gives no value; its text is what an address leaves out. */
export interface Fallback {
  value: ParameterValue;
  /** Percent-encoded. */
  text: string;
}

export interface CompiledParameter {
  name: string;
  place: 'path' | 'query';
  declaration: ParameterDeclaration;
  codec: Codec;
  /** The codec of the value itself; another one only where the address holds it sealed. */
  plain: Codec;
  sealed: boolean;
  /** A list that an address repeats (`*`) rather than joins. */
  repeated: boolean;
  required: boolean;
  /** The default, as it is at this moment: “today” is another day tomorrow. */
  fallback: (() => Fallback | undefined) | undefined;
  refuses: boolean;
  resets: readonly string[];
  step: boolean;
  /** Every link in the app carries its value on. */
  carried: boolean;
  /** Taken from the address of arrival, and remembered for the visit instead of standing in addresses. */
  remembered: boolean;
}
