import { ProblemError } from '../problem.ts';
import type { ParameterTypes } from '../parameters/codec.ts';
import type { Json, ParameterDeclaration, RangeValue, SortKey } from '../parameters/declaration.ts';
import { changeValues, type Change } from './change.ts';
import { compileApp, type CompileOptions } from './compile.ts';
import type { AddressableApp, AddressablePage, CompiledApp } from './compiled-app.ts';
import { readAddress } from './read.ts';
import type { Reading } from './reading.ts';
import { writeAddress, type WriteOptions, type Written } from './write.ts';

type Declarations = Readonly<Record<string, ParameterDeclaration>>;
type ChoicesOf<App extends AddressableApp> = App['choices'] extends object ? App['choices'] : Record<never, never>;

/** The values of a simple type. */
type SimpleValue<App extends AddressableApp, Type, Of> = Type extends 'text' | 'date' | 'datetime' | 'record'
  ? string
  : Type extends 'integer' | 'number'
    ? number
    : Type extends 'boolean'
      ? boolean
      : Type extends 'page'
        ? keyof App['pages'] & string
        : Type extends 'choice'
          ? Of extends keyof ChoicesOf<App>
            ? keyof ChoicesOf<App>[Of] & string
            : never
          : never;

/** The values of a declared parameter. */
export type ValueOf<App extends AddressableApp, Declared extends ParameterDeclaration> = Declared['type'] extends 'sort'
  ? SortKey[]
  : Declared['type'] extends 'packed'
    ? Json
    : Declared['type'] extends 'range'
      ? RangeValue<Declared['of'] extends 'date' ? string : number>
      : Declared['type'] extends 'list'
        ? SimpleValue<App, NonNullable<Declared['items']>['type'], NonNullable<Declared['items']>['of']>[]
        : SimpleValue<App, Declared['type'], Declared['of']>;

/** Names of the parameters that always stand in the path: those written `{name}`. */
type PathNames<Address extends string> = Address extends `${string}{${infer Name}}${infer Rest}`
  ? (Name extends `/${string}` | `?${string}` ? never : Name) | PathNames<Rest>
  : never;

type ParametersOf<Page extends AddressablePage> = Page['parameters'] extends Declarations ? Page['parameters'] : Record<never, never>;

/** Names that a link to the page has to give: those in the path, and those required that have no default. */
type RequiredNames<Page extends AddressablePage> = {
  [Name in keyof ParametersOf<Page>]: Name extends PathNames<Page['address']>
    ? Name
    : ParametersOf<Page>[Name] extends { required: true }
      ? ParametersOf<Page>[Name] extends { default: unknown }
        ? never
        : Name
      : never;
}[keyof ParametersOf<Page>];

/** Names that have a value in every reading: those required, and those with a default. */
type PresentNames<Page extends AddressablePage> =
  | RequiredNames<Page>
  | { [Name in keyof ParametersOf<Page>]: ParametersOf<Page>[Name] extends { default: unknown } ? Name : never }[keyof ParametersOf<Page>];

type Value<App extends AddressableApp, Declared> = Declared extends ParameterDeclaration ? ValueOf<App, Declared> : never;

type With<App extends AddressableApp, Page extends AddressablePage, Needed> = [keyof ParametersOf<Page>] extends [never]
  ? Record<string, never>
  : {
      [Name in keyof ParametersOf<Page> as Name extends Needed ? Name : never]: Value<App, ParametersOf<Page>[Name]>;
    } & {
      [Name in keyof ParametersOf<Page> as Name extends Needed ? never : Name]?: Value<App, ParametersOf<Page>[Name]> | undefined;
    };

/** What a link to a page gives. */
export type LinkValues<App extends AddressableApp, Name extends keyof App['pages']> = With<
  App,
  App['pages'][Name],
  RequiredNames<App['pages'][Name]>
>;

/** What a page can count on once its address has been read. */
export type PageValues<App extends AddressableApp, Name extends keyof App['pages']> = With<
  App,
  App['pages'][Name],
  PresentNames<App['pages'][Name]>
>;

/** A reading that names a page which can be shown, with the values of that page. */
export type PageReading<App extends AddressableApp> = {
  [Name in keyof App['pages'] & string]: Omit<Reading, 'status' | 'page' | 'values'> & {
    status: 'page';
    page: Name;
    values: PageValues<App, Name>;
  };
}[keyof App['pages'] & string];

/** A reading that does not. */
export type OtherReading = Reading & { status: 'refused' | 'unknown-page' | 'malformed' };

/** An app declared in code: a wrong name, a missing value or a value of a wrong type does not compile. */
export interface TypedApp<App extends AddressableApp> {
  compiled: CompiledApp;
  read(address: string): PageReading<App> | OtherReading;
  write<Name extends keyof App['pages'] & string>(page: Name, values: LinkValues<App, Name>, options?: WriteOptions): Written;
  change<Name extends keyof App['pages'] & string>(
    page: Name,
    current: PageValues<App, Name>,
    changes: Partial<PageValues<App, Name>>,
  ): Change;
}

/** Declares a page in code, as the app file would; its declaration is data and may be written out as such. */
export function definePage<const Page extends AddressablePage>(page: Page): Page {
  return page;
}

/**
 * Declares an app in code.
 * @throws ProblemError with every problem, where a declaration contradicts itself
 */
export function defineApp<const App extends AddressableApp>(
  definition: App,
  options: CompileOptions & { types?: ParameterTypes } = {},
): TypedApp<App> {
  const { app, problems } = compileApp(definition, options);
  const errors = problems.filter(({ severity }) => severity === 'error');
  if (errors.length > 0) throw new ProblemError(errors);
  return {
    compiled: app,
    read: (address) => readAddress(app, address) as PageReading<App> | OtherReading,
    write: (page, values, writeOptions) => writeAddress(app, page, values, writeOptions),
    change: (page, current, changes) => changeValues(app, page, current, changes),
  };
}
