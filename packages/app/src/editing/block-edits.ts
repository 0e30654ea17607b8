import { fromPointer, toPointer, type PatchOperation } from '@pallmist/address/declare';
import { mapInnerContent } from '../components/inner-content.ts';
import { expandBlocks } from '../definition/blocks/expand-blocks.ts';
import type { AppDefinition, Component } from '../definition/app-definition.ts';
import { freeName, identifierOf } from './names.ts';
import type { Made } from './page-edits.ts';
import { valueAt } from './patch-data.ts';

/** An input of a block, and what a use of the block gives for it. */
export interface BlockInput {
  name: string;
  label: string;
  required: boolean;
  default: unknown;
  /** Undefined where the use gives nothing. */
  given: unknown;
}

/** The pages that use a block, themselves or in another block. */
export const pagesWithBlock = (definition: AppDefinition, block: string): string[] => [
  ...new Set(expandBlocks(definition).uses.flatMap((use) => (use.block === block ? fromPointer(use.at).slice(1, 2) : []))),
];

/** What a block takes, with what one use of it gives. */
export function inputsOf(definition: AppDefinition, { of, values }: Component): BlockInput[] {
  const { takes = {} } = definition.blocks?.[String(of)] ?? {};
  return Object.entries(takes).map(([name, { label, required, default: otherwise }]) => ({
    name,
    label: label ?? name,
    required: required === true,
    default: otherwise,
    given: (values as Record<string, unknown> | undefined)?.[name],
  }));
}

/** The JSON Patch that makes a block of a component, and uses it in its place. */
export function makeBlock(definition: AppDefinition, pointer: string): Made {
  const component = valueAt(definition, pointer) as Component | undefined;
  if (component === undefined) return { name: '', patch: [] };
  const says = [component['label'], component['text'], component['title']].find(
    (one): one is string => typeof one === 'string' && !one.includes('{'),
  );
  const name = freeName(identifierOf(says ?? component.show, component.show), Object.keys(definition.blocks ?? {}));
  const value = { content: [component] };
  const patch: PatchOperation[] = [
    definition.blocks === undefined
      ? { op: 'add', path: '/blocks', value: { [name]: value }, before: 'pages' }
      : { op: 'add', path: toPointer(['blocks', name]), value },
    { op: 'replace', path: pointer, value: { show: 'block', of: name } },
  ];
  return { name, patch };
}

/** The JSON Patch that puts what stands in a block in the place of one use of it. */
export function dissolveBlock(definition: AppDefinition, pointer: string): PatchOperation[] {
  const path = fromPointer(pointer);
  const index = Number(path.pop());
  const used = valueAt(expandBlocks(definition).data, pointer) as Component | undefined;
  if (used?.show !== 'block' || !Number.isInteger(index)) return [];
  const content = (used['content'] ?? []) as Component[];
  return [
    { op: 'remove', path: pointer },
    ...content.map((value, position): PatchOperation => ({
      op: 'add',
      path: toPointer([...path, index + position]),
      value: asWritten(value),
    })),
  ];
}

/** A block within it is used there still. */
function asWritten(component: Component): Component {
  if (component.show !== 'block') return mapInnerContent(component, (content) => content.map(asWritten));
  const { content: _, ...written } = component;
  return written;
}

/** The pointer to the component that the app file has at a place, or to the use of the block that brings it. */
export function writtenComponent(data: unknown, pointer: string): string {
  let present = pointer;
  while (present !== '' && valueAt(data, present) === undefined) present = present.slice(0, present.lastIndexOf('/'));
  // Between a component and its content stands no component.
  while (present !== '' && (valueAt(data, present) as Component | undefined)?.show === undefined)
    present = present.slice(0, present.lastIndexOf('/'));
  return present;
}
