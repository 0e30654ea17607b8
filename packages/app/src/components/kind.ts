import { z } from 'zod';
import type { AppDefinition, Component, PageDefinition } from '../definition/app-schema.ts';
import type { CheckContext, Place } from '../definition/check/context.ts';
import { condition, type LinkDefinition, name as nameSchema } from '../definition/schema-parts.ts';
import type { References } from './references.ts';
import type { FormFieldDefinition, SetValues } from './shared/form-fields.ts';

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

/** Where a component holds other components: under `content`, or under `panes` for each choice. */
interface Inner {
  content: { content: Component[] };
  panes: { panes: Record<string, Component[]> };
}

type Keys<Fields extends z.ZodRawShape, Within> = z.output<z.ZodObject<Fields>> & (Within extends keyof Inner ? Inner[Within] : unknown);

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
  readonly fields: z.ZodRawShape;
  readonly inner: keyof Inner | undefined;
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

type Parts<Name extends string, Fields extends z.ZodRawShape, Within, Declared> = Omit<
  ComponentKind<Name, Declared>,
  'fields' | 'inner' | 'example'
> & {
  fields: Fields;
  inner?: Within;
  example: Keys<Fields, Within>;
};

/** Declares a kind of component. A part that is missing does not compile. */
export function componentKind<
  const Name extends string,
  Fields extends z.ZodRawShape,
  const Within extends keyof Inner | undefined = undefined,
>(
  parts: Parts<Name, Fields, Within, Keys<Fields, Within> & { show: Name; when?: string | undefined }>,
): ComponentKind<Name, Keys<Fields, Within> & { show: Name; when?: string | undefined }> {
  return { ...parts, inner: parts.inner };
}

/** For a kind of component of which the schema and the references say everything. */
export const nothingElse = (): void => undefined;

/** The schema of a kind: its own keys, those of every component, and the components within it. */
export function schemaOf(kind: ComponentKind, component: z.ZodType<Component>): z.ZodObject {
  const inner =
    kind.inner === 'content'
      ? { content: kind.filledIn === true ? z.array(component).optional().meta({ filledIn: true }) : z.array(component) }
      : kind.inner === 'panes'
        ? { panes: z.record(nameSchema, z.array(component)).describe('What is shown for each choice') }
        : {};
  return z
    .strictObject({
      show: z.literal(kind.name),
      ...kind.fields,
      ...inner,
      when: condition.optional().describe('Shown only while this holds'),
    })
    .meta({ title: kind.label, description: kind.sentence, examples: [{ show: kind.name, ...writtenExample(kind) }] });
}

/** The example as it stands in a file. */
function writtenExample({ example, filledIn }: ComponentKind): object {
  const { content, ...written } = example as { content?: unknown };
  return filledIn === true || content === undefined ? written : example;
}
