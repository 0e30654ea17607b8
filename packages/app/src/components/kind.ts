import type { AppDefinition, FormFieldDefinition, LinkDefinition, PageDefinition, SetValues } from '../definition/app-definition.ts';
import type { CheckContext, Place } from '../definition/check/context.ts';
import type { References } from './references.ts';

/** Where a component stands that is being checked. */
export interface ComponentPlace {
  context: CheckContext;
  at: Place;
  page: PageDefinition;
  /** Names of the page’s forms so far: the service finds the form that was sent by its name. */
  formNames: Set<string>;
}

/** What a component saves when its form is sent. */
export interface SavingForm {
  name: string;
  action: 'create' | 'change' | 'remove';
  collection: string | undefined;
  /** The record parameter that names the record. */
  parameter: string | undefined;
  fields: readonly FormFieldDefinition[];
  set: SetValues;
  /** The form stands in a row: what it sets may name the row, and saving closes it. */
  inRow: boolean;
  /** What to say when it is saved. */
  done?: string | undefined;
  mail?: string | undefined;
  then?: LinkDefinition | undefined;
}

/** Everything that is true of one kind of component and that a browser does without; how it is shown stands beside it. */
export interface ComponentKind<Name extends string = string, Declared = never> {
  /** The value of `show` that names it. */
  readonly name: Name;
  /** What people call it. */
  readonly label: string;
  /** What it is for, in a sentence. */
  readonly sentence: string;
  /** Its keys as one would write them, without `show`. */
  readonly example: object;
  /** The schemas of its keys, by name. */
  readonly fields: Readonly<Record<string, object>>;
  /** Where it holds other components: under `content`, or under `panes` for each choice. */
  readonly inner: 'content' | 'panes' | undefined;
  /** Its inner content comes from elsewhere in the app file: where it stands, the file has none. */
  readonly filledIn?: true;
  /** Its parameter opens it: saving a form in it closes it. */
  readonly opens?: true;
  /** Lists everything in it that refers to something else. */
  refersTo(component: Declared, references: References): void;
  /** Reports what only this kind of component can get wrong. */
  check(component: Declared, place: ComponentPlace): void;
  /** What it saves; undefined where it saves nothing. */
  form?(component: Declared, page: PageDefinition, app: Pick<AppDefinition, 'parameters'>): SavingForm | undefined;
  /** The component without what only the service needs. */
  toSend?(component: Declared): object;
}

/** A component of a kind, as the app file declares it. */
export type ComponentOf<Kind> = Kind extends ComponentKind<string, infer Declared> ? Declared : never;

/** For a kind of component of which the schema and the references say everything. */
export const nothingElse = (): void => undefined;
