import { fromPointer, type PatchOperation, toPointer } from '@pallmist/address/declare';
import type { AppDefinition, Component } from '../definition/app-definition.ts';
import { innerContent } from '../components/inner-content.ts';
import { kindOf } from '../components/kinds.ts';
import { freeName } from './names.ts';
import { propertiesOf, type PropertyKind } from './component-properties.ts';
import { valueAt } from './patch-data.ts';

/** A list of components: the content of a page, of a component, or of a pane. */
type ListPointer = string;

const split = (pointer: string): { list: ListPointer; index: number } => {
  const keys = fromPointer(pointer);
  return { list: toPointer(keys.slice(0, -1)), index: Number(keys.at(-1)) };
};

const lengthOf = (definition: AppDefinition, list: ListPointer): number => {
  const content = valueAt(definition, list);
  return Array.isArray(content) ? content.length : 0;
};

/** The JSON Patch that puts a component into a list; last when no index is given. A list that is not there yet is made. */
export function insertComponent(definition: AppDefinition, list: ListPointer, component: Component, index?: number): PatchOperation[] {
  if (!Array.isArray(valueAt(definition, list))) return [{ op: 'add', path: list, value: [component] }];
  const at = Math.min(index ?? Infinity, lengthOf(definition, list));
  return [{ op: 'add', path: `${list}/${String(at)}`, value: component }];
}

/** The JSON Patch that moves a component one step among those beside it; over the end it leaves or enters what holds components. */
export function stepComponent(definition: AppDefinition, pointer: string, step: -1 | 1): { patch: PatchOperation[]; pointer: string } {
  const { list, index } = split(pointer);
  const to = index + step;
  if (to >= 0 && to < lengthOf(definition, list)) {
    const beside = `${list}/${String(to)}`;
    return { patch: [{ op: 'move', from: pointer, path: beside }], pointer: beside };
  }
  return leaveComponent(definition, pointer, step);
}

/** Takes a component out of what holds it, to before or after that. */
function leaveComponent(_: AppDefinition, pointer: string, step: -1 | 1): { patch: PatchOperation[]; pointer: string } {
  const keys = fromPointer(pointer);
  const pane = keys.at(-3) === 'panes' ? 3 : 2;
  const holder = keys.slice(0, -pane);
  const index = Number(holder.at(-1));
  if (!Number.isInteger(index)) return { patch: [], pointer };
  const path = `${toPointer(holder.slice(0, -1))}/${String(step === -1 ? index : index + 1)}`;
  return { patch: [{ op: 'move', from: pointer, path }], pointer: path };
}

/** The JSON Patch that moves a component to a place in another list of the same page. @param index as it is before the move */
export function moveComponent(pointer: string, list: ListPointer, index: number): { patch: PatchOperation[]; pointer: string } {
  if (list === pointer || list.startsWith(`${pointer}/`)) return { patch: [], pointer };
  const from = split(pointer);
  // Whatever stands after the component in its list moves up when it goes.
  const target = fromPointer(list);
  const holder = fromPointer(from.list);
  const step = target[holder.length];
  const within = holder.every((key, position) => target[position] === key) && step !== undefined && Number(step) > from.index;
  const moved = within ? toPointer([...holder, Number(step) - 1, ...target.slice(holder.length + 1)]) : list;
  const at = list === from.list && index > from.index ? index - 1 : index;
  const path = `${moved}/${String(at)}`;
  return { patch: path === pointer ? [] : [{ op: 'move', from: pointer, path }], pointer: path };
}

export const removeComponent = (pointer: string): PatchOperation[] => [{ op: 'remove', path: pointer }];

/** The JSON Patch that puts a component into a panel of its own. */
export function wrapComponent(definition: AppDefinition, pointer: string): PatchOperation[] {
  const component = valueAt(definition, pointer);
  return component === undefined ? [] : [{ op: 'replace', path: pointer, value: { show: 'panel', content: [component] } }];
}

/** The JSON Patch that takes a component apart and leaves what stood in it. */
export function unwrapComponent(definition: AppDefinition, pointer: string): PatchOperation[] {
  const component = valueAt(definition, pointer) as Component | undefined;
  const inner = component === undefined ? [] : innerContent(component).flatMap(({ content }) => content);
  const { list, index } = split(pointer);
  return [
    { op: 'remove', path: pointer },
    ...inner.map((value, position): PatchOperation => ({ op: 'add', path: `${list}/${String(index + position)}`, value })),
  ];
}

/**
 * A new component of a kind for a page: what it needs and what fits is filled in, the rest says what it is for. What the page
 * has not got yet, a parameter to bind to say, is left for the check to ask for.
 */
export function newComponent(definition: AppDefinition, page: string, show: string): Component {
  const component: Component = { show };
  const example = (kindOf(component)?.example ?? {}) as Record<string, unknown>;
  for (const { key, required, kind } of propertiesOf(show)) {
    if (!required) continue;
    component[key] = key === 'label' ? (kindOf(component)?.label ?? show) : fill(definition, page, kind, example[key]);
  }
  const rowsName = typeof component['rows'] === 'string' ? component['rows'] : undefined;
  const collection = definition.collections?.[definition.pages[page]?.rows?.[rowsName ?? '']?.from ?? ''];
  if (show === 'table' && collection !== undefined)
    component['columns'] = Object.keys(collection.fields)
      .slice(0, 4)
      .map((field) => ({ field }));
  if (show === 'list') component['text'] = collection === undefined ? 'An entry' : `{row.${collection.titleField ?? collection.keyField}}`;
  if (show === 'details') {
    const of = definition.pages[page]?.parameters?.[String(component['bind'])]?.of;
    component['fields'] = Object.keys(definition.collections?.[of ?? '']?.fields ?? {}).slice(0, 8);
  }
  if (show === 'form') {
    const [name = '', first] = Object.entries(definition.collections ?? {})[0] ?? [];
    component['action'] = 'create';
    component['collection'] = name;
    component['fields'] = Object.entries(first?.fields ?? {}).flatMap(([field, { serial, computed }]) =>
      serial === undefined && computed === undefined ? [field] : [],
    );
    component['name'] = freeName(`add-${name}`, namesOfForms(definition, page), '-');
  }
  if (show === 'block') {
    const [of = ''] = Object.keys(definition.blocks ?? {});
    const needed = Object.entries(definition.blocks?.[of]?.takes ?? {}).filter(([, { required }]) => required === true);
    return { show, of, ...(needed.length === 0 ? {} : { values: Object.fromEntries(needed.map(([name]) => [name, ''])) }) };
  }
  const inner = kindOf(component)?.inner;
  if (inner === 'content') component['content'] = [];
  if (inner === 'panes') {
    const of = declared(definition, page)[String(component['bind'])]?.of;
    component['panes'] = Object.fromEntries(Object.keys(definition.choices?.[of ?? ''] ?? {}).map((choice) => [choice, []]));
  }
  return component;
}

const declared = (definition: AppDefinition, page: string) => ({ ...definition.parameters, ...definition.pages[page]?.parameters });

function namesOfForms(definition: AppDefinition, page: string): string[] {
  const names: string[] = [];
  const look = (content: readonly Component[]) => {
    for (const component of content) {
      if (typeof component['name'] === 'string') names.push(component['name']);
      for (const inner of innerContent(component)) look(inner.content);
    }
  };
  look(definition.pages[page]?.content ?? []);
  return names;
}

function fill(definition: AppDefinition, page: string, kind: PropertyKind, example: unknown): unknown {
  switch (kind.is) {
    case 'bind':
      return Object.entries(declared(definition, page)).find(([, { type }]) => kind.types.includes(type))?.[0] ?? '';
    case 'rows':
      return Object.keys(definition.pages[page]?.rows ?? {})[0] ?? '';
    case 'collection':
      return Object.keys(definition.collections ?? {})[0] ?? '';
    case 'page':
      return Object.keys(definition.pages).find((name) => name !== page) ?? page;
    case 'link':
      return { page: Object.keys(definition.pages).find((name) => name !== page) ?? page };
    case 'text':
      return 'Write something here';
    case 'list':
      return [];
    case 'one-of':
      return kind.options[0];
    default:
      return example ?? '';
  }
}

/** The JSON Patch that binds what has panes to a parameter, and gives each of its choices a pane. */
export function bindPanes(definition: AppDefinition, page: string, pointer: string, name: string): PatchOperation[] {
  const component = valueAt(definition, pointer) as Component | undefined;
  if (component === undefined) return [];
  const present = (component['panes'] ?? {}) as Record<string, Component[]>;
  const of = declared(definition, page)[name]?.of;
  const choices = Object.keys(definition.choices?.[of ?? ''] ?? {});
  // What stands in a pane is never thrown away: the check says where it belongs to no choice.
  const kept = Object.fromEntries(Object.entries(present).filter(([choice, content]) => choices.includes(choice) || content.length > 0));
  const panes = { ...Object.fromEntries(choices.map((choice) => [choice, []])), ...kept };
  return [
    { op: component['bind'] === undefined ? 'add' : 'replace', path: `${pointer}/bind`, value: name },
    { op: component['panes'] === undefined ? 'add' : 'replace', path: `${pointer}/panes`, value: panes },
  ];
}

/** What of a component does not fit the page that it was pasted to: each a property with what would fit. */
export interface Misfit {
  /** JSON Pointer of the property. */
  pointer: string;
  named: string;
  what: 'parameter' | 'rows';
  /** Names of the page that fit. */
  fitting: string[];
}

/** Lists the bindings of a component that the page has not got. */
export function misfitsOf(definition: AppDefinition, page: string, pointer: string): Misfit[] {
  const component = valueAt(definition, pointer) as Component | undefined;
  if (component === undefined) return [];
  const misfits: Misfit[] = [];
  const parameters = declared(definition, page);
  const rows = Object.keys(definition.pages[page]?.rows ?? {});
  const look = (one: Component, at: string) => {
    for (const { key, kind } of propertiesOf(one.show)) {
      const value = one[key];
      if (typeof value !== 'string') continue;
      if (kind.is === 'bind' && parameters[value] === undefined) {
        const fitting = Object.entries(parameters).flatMap(([name, { type }]) => (kind.types.includes(type) ? [name] : []));
        misfits.push({ pointer: `${at}/${key}`, named: value, what: 'parameter', fitting });
      }
      if (kind.is === 'rows' && !rows.includes(value)) misfits.push({ pointer: `${at}/${key}`, named: value, what: 'rows', fitting: rows });
    }
    for (const { path, content } of innerContent(one))
      for (const [index, inner] of content.entries()) look(inner, at + toPointer([...path, index]));
  };
  look(component, pointer);
  return misfits;
}
