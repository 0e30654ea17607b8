import { toPointer } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import type { FormFieldDefinition, SetValues } from '../../definition/app-definition.ts';
import { type CheckContext, type Place, report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';
import { checkMailOf } from '../../definition/check/mails.ts';
import { fieldName } from '../../records/plan-save.ts';
import type { ComponentPlace } from '../kind.ts';
import { checkFormFields, takeFormName } from '../shared/check-form-fields.ts';

interface Form {
  name: string;
  action: 'create' | 'change' | 'remove';
  collection?: string | undefined;
  bind?: string | undefined;
  fields?: readonly FormFieldDefinition[] | undefined;
  set?: SetValues;
  mail?: string | undefined;
}

/** What a form saves is there, and it gives all that a new record needs. */
export function checkForm(form: Form, place: ComponentPlace): void {
  const { context, at, page } = place;
  takeFormName(place, [...at, 'name'], form.name);
  if (form.mail !== undefined) checkMailOf(context, [...at, 'mail'], page, form.mail, collectionOf(form, place));
  checkTarget(form, context, at);
  const collections = Object.keys(context.definition.collections ?? {});
  if (form.collection !== undefined && !collections.includes(form.collection)) {
    report(context, [...at, 'collection'], {
      code: 'unknown-collection',
      message: `There is no collection “${form.collection}”.`,
      hint: suggest(form.collection, collections),
      ...fixName([...at, 'collection'], form.collection, collections),
    });
    return;
  }
  const { fields = [], set, action, name, bind } = form;
  const collection = collectionOf(form, place);
  checkFormFields(context, at, { name, action, collection, parameter: bind, fields, set, inRow: false });
  if (action === 'create') checkComplete(form, collection ?? '', context, at);
}

const collectionOf = ({ collection, bind }: Form, { page }: ComponentPlace) => collection ?? page.parameters?.[bind ?? '']?.of;

/** A form that creates names a collection; one that changes or removes names a record. */
function checkTarget(form: Form, context: CheckContext, at: Place): void {
  const needed = form.action === 'create' ? 'collection' : 'bind';
  const needless = form.action === 'create' ? 'bind' : 'collection';
  if (form[needed] === undefined)
    report(context, at, {
      code: 'missing-key',
      message: `A form that is to ${form.action} something needs “${needed}”.`,
      hint: needed === 'collection' ? 'Name the collection that gets the record.' : 'Name the record parameter.',
    });
  if (form[needless] !== undefined)
    report(context, [...at, needless], {
      code: 'attribute-without-effect',
      message: `“${needless}” says nothing in a form that is to ${form.action} something.`,
      hint: 'Take it out.',
      fix: [{ op: 'remove', path: toPointer([...at, needless]) }],
    });
}

/** A new record has to get every field that it cannot do without. */
function checkComplete(form: Form, collection: string, context: CheckContext, at: Place): void {
  const definition = context.definition.collections?.[collection];
  const given = new Set([...(form.fields ?? []).map(fieldName), ...Object.keys(form.set ?? {})]);
  for (const [name, field] of Object.entries(definition?.fields ?? {})) {
    if ((field.required !== true && name !== definition?.keyField) || field.serial !== undefined || given.has(name)) continue;
    report(context, at, {
      code: 'form-missing-field',
      message: `The form gives no “${name}”, without which there is no record of “${collection}”.`,
      hint:
        name === definition?.keyField && field.type === 'text'
          ? 'Show it, set it, or let the field count by “serial”.'
          : 'Show it under “fields”, or give it under “set”.',
      fix: form.fields
        ? [{ op: 'add', path: toPointer([...at, 'fields', '-']), value: name }]
        : [{ op: 'add', path: toPointer([...at, 'fields']), value: [name] }],
    });
  }
}
