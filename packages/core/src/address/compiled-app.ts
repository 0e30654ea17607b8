import type { Codec } from '../parameters/codec.ts';
import type { CollectionShape, ParameterDeclaration, ParameterValue } from '../parameters/declaration.ts';
import type { PageFinder } from './page-finder.ts';
import type { AddressTemplate } from './template.ts';

/** What the address part needs of an app; the app file's definition is one of these. */
export interface AddressableApp {
  app: string;
  mount: string;
  choices?: Record<string, Record<string, string>> | undefined;
  collections?: Record<string, CollectionShape> | undefined;
  pages: Record<string, AddressablePage>;
}

export interface AddressablePage {
  address: string;
  parameters?: Record<string, ParameterDeclaration> | undefined;
}

/** An app whose addresses can be read and written. Made by `compileApp`. */
export interface CompiledApp {
  name: string;
  /** Where the app is mounted: “” for the root, else “/” and segments, without a “/” at the end. */
  mount: string;
  pages: Map<string, CompiledPage>;
  finder: PageFinder<CompiledPage>;
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
}

export interface CompiledParameter {
  name: string;
  place: 'path' | 'query';
  declaration: ParameterDeclaration;
  codec: Codec;
  required: boolean;
  default: ParameterValue | undefined;
  /** The default in its written form, which an address leaves out. */
  defaultText: string | undefined;
  refuses: boolean;
  resets: readonly string[];
  step: boolean;
}
