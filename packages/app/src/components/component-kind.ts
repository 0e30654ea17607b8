import { z } from 'zod';
import type { Component } from '../definition/component.ts';
import { condition, name as nameSchema } from '../definition/schema-parts.ts';
import type { ComponentKind } from './kind.ts';

/** Where a component holds other components: under `content`, or under `panes` for each choice. */
interface Inner {
  content: { content: Component[] };
  panes: { panes: Record<string, Component[]> };
}

type Keys<Fields extends z.ZodRawShape, Within> = z.output<z.ZodObject<Fields>> & (Within extends keyof Inner ? Inner[Within] : unknown);

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

/** The schemas of a kind’s own keys. */
export const fieldsOf = (kind: ComponentKind): z.ZodRawShape => kind.fields as z.ZodRawShape;

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
      ...fieldsOf(kind),
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
