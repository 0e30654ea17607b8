import { toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { Refusal } from '@pallmist/address/pages';
import { fieldReader } from '../../records/field-value.ts';
import { fieldName } from '../../records/plan-save.ts';
import type { PageDefinition } from '../app-schema.ts';
import type { FormFieldDefinition } from '../content/forms-schema.ts';
import type { ComponentDefinition, ComponentOf } from '../content-schema.ts';
import { report, type CheckContext, type Place } from './context.ts';
import { fixName } from './fix-name.ts';

/** A form, or a table with a row that is edited in place: what it saves is there, and all that a new record needs. */
export function checkForm(
  context: CheckContext,
  at: Place,
  page: PageDefinition,
  component: ComponentDefinition,
  names: Set<string>,
): void {
  if (component.show === 'table' && component.edit) {
    const { name, fields, set, bind } = component.edit;
    takeName(context, [...at, 'edit', 'name'], name, names);
    const from = page.rows?.[component.rows]?.from;
    checkFields(context, [...at, 'edit'], from, fields, set);
    const of = page.parameters?.[bind]?.of;
    if (from !== undefined && of !== undefined && of !== from) {
      report(context, [...at, 'edit', 'bind'], {
        code: 'binding-wrong-type',
        message: `“${bind}” is a record of “${of}”, and the rows are of “${from}”.`,
        hint: `Make it a record of “${from}”.`,
      });
    }
    return;
  }
  if (component.show !== 'form') return;
  takeName(context, [...at, 'name'], component.name, names);
  const needed = component.action === 'create' ? 'collection' : 'bind';
  const needless = component.action === 'create' ? 'bind' : 'collection';
  if (component[needed] === undefined) {
    report(context, at, {
      code: 'missing-key',
      message: `A form that is to ${component.action} something needs “${needed}”.`,
      hint: needed === 'collection' ? 'Name the collection that gets the record.' : 'Name the record parameter.',
    });
  }
  if (component[needless] !== undefined) {
    report(context, [...at, needless], {
      code: 'attribute-without-effect',
      message: `“${needless}” says nothing in a form that is to ${component.action} something.`,
      hint: 'Take it out.',
      fix: [{ op: 'remove', path: toPointer([...at, needless]) }],
    });
  }
  const collection = component.collection ?? page.parameters?.[component.bind ?? '']?.of;
  const collections = Object.keys(context.definition.collections ?? {});
  if (component.collection !== undefined && !collections.includes(component.collection)) {
    report(context, [...at, 'collection'], {
      code: 'unknown-collection',
      message: `There is no collection “${component.collection}”.`,
      hint: suggest(component.collection, collections),
      ...fixName([...at, 'collection'], component.collection, collections),
    });
    return;
  }
  checkFields(context, at, collection, component.fields ?? [], component.set);
  if (component.action === 'create') checkComplete(context, at, component, collection ?? '');
}

/** Names of forms: the service finds the form that was sent by its name. */
function takeName(context: CheckContext, at: Place, name: string, names: Set<string>): void {
  if (names.has(name))
    report(context, at, {
      code: 'form-name-taken',
      message: `Another form of the page is called “${name}”.`,
      hint: 'Give each its own name.',
    });
  names.add(name);
}

function checkFields(
  context: CheckContext,
  at: Place,
  collection: string | undefined,
  fields: readonly FormFieldDefinition[],
  set: Record<string, string | number | boolean> | undefined,
): void {
  const declared = context.definition.collections?.[collection ?? '']?.fields;
  if (declared === undefined) return;
  const need = (place: Place, name: string) => {
    if (Object.hasOwn(declared, name)) return true;
    report(context, place, {
      code: 'unknown-field',
      message: `The collection “${collection ?? ''}” has no field “${name}”.`,
      hint: suggest(name, Object.keys(declared)),
      ...fixName(place, name, Object.keys(declared)),
    });
    return false;
  };
  for (const [index, field] of fields.entries())
    need(typeof field === 'string' ? [...at, 'fields', index] : [...at, 'fields', index, 'field'], fieldName(field));
  for (const [name, value] of Object.entries(set ?? {})) {
    const field = declared[name];
    if (!need([...at, 'set', name], name) || field === undefined || (typeof value === 'string' && value.includes('{'))) continue;
    // A field that is wrong itself has its own problem.
    const known = field.type !== 'choice' || Object.hasOwn(context.definition.choices ?? {}, field.of ?? '');
    const read = known && field.type !== 'record' ? fieldReader(context.definition, field)(String(value)) : undefined;
    if (read instanceof Refusal)
      report(context, [...at, 'set', name], {
        code: 'wrong-value',
        message: `“${name}” cannot be ${JSON.stringify(value)}: ${read.message}`,
      });
  }
}

/** A new record has to get every field that it cannot do without. */
function checkComplete(context: CheckContext, at: Place, component: ComponentOf<'form'>, collection: string): void {
  const definition = context.definition.collections?.[collection];
  const given = new Set([...(component.fields ?? []).map(fieldName), ...Object.keys(component.set ?? {})]);
  for (const [name, field] of Object.entries(definition?.fields ?? {})) {
    if ((field.required !== true && name !== definition?.keyField) || field.serial !== undefined || given.has(name)) continue;
    report(context, at, {
      code: 'form-missing-field',
      message: `The form gives no “${name}”, without which there is no record of “${collection}”.`,
      hint:
        name === definition?.keyField && field.type === 'text'
          ? 'Show it, set it, or let the field count by “serial”.'
          : 'Show it under “fields”, or give it under “set”.',
      fix: component.fields
        ? [{ op: 'add', path: toPointer([...at, 'fields', '-']), value: name }]
        : [{ op: 'add', path: toPointer([...at, 'fields']), value: [name] }],
    });
  }
}

/** A form that leads to another page: it asks for parameters that this page has. */
export function checkAsk(context: CheckContext, at: Place, component: ComponentOf<'ask'>): void {
  const target = context.compiled.pages.get(component.page);
  if (target === undefined) return;
  const inQuery = target.query.map(({ name }) => name);
  for (const [index, name] of component.boxes.entries()) {
    if (inQuery.includes(name)) continue;
    report(context, [...at, 'boxes', index], {
      code: 'undeclared',
      message: `The page “${component.page}” has no query parameter “${name}”.`,
      hint: suggest(name, inQuery),
      ...fixName([...at, 'boxes', index], name, inQuery),
    });
  }
  for (const parameter of target.parameters) {
    if (!parameter.required || component.boxes.includes(parameter.name) || component.values?.[parameter.name] !== undefined) continue;
    report(context, at, {
      code: 'link-missing-value',
      message: `The page “${component.page}” requires “${parameter.name}”, which is not asked for.`,
      hint: 'Give it under “values”.',
    });
  }
}
