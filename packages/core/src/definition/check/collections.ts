import { suggest } from '../../near.ts';
import type { FieldDefinition } from '../app-schema.ts';
import { toPointer } from '../../problem.ts';
import { mendName } from './mend-name.ts';
import { checkPattern } from './patterns.ts';
import { report, type CheckContext, type Place } from './context.ts';

/** Collections: the key and title are fields, references lead somewhere, patterns are patterns. */
export function checkCollections(context: CheckContext): void {
  const { collections = {}, choices = {} } = context.definition;
  for (const [name, collection] of Object.entries(collections)) {
    const place = ['collections', name];
    const fields = Object.keys(collection.fields);
    for (const attribute of ['key', 'title'] as const) {
      const field = collection[attribute];
      if (field === undefined || Object.hasOwn(collection.fields, field)) continue;
      report(context, [...place, attribute], {
        code: 'unknown-field',
        message: `The collection “${name}” has no field “${field}” to be its ${attribute}.`,
        hint: suggest(field, fields),
        ...mendName([...place, attribute], field, fields),
      });
    }
    const key = collection.fields[collection.key];
    if (key && key.type !== 'text') {
      report(context, [...place, 'key'], {
        code: 'key-not-text',
        message: `The key “${collection.key}” is a ${key.type}.`,
        hint: 'A key is a text field.',
      });
    }
    for (const [fieldName, field] of Object.entries(collection.fields)) {
      const fieldPlace = [...place, 'fields', fieldName];
      if (field.type === 'choice' || field.type === 'record') {
        const known = Object.keys(field.type === 'choice' ? choices : collections);
        if (field.of === undefined || !known.includes(field.of)) {
          report(context, field.of === undefined ? fieldPlace : [...fieldPlace, 'of'], {
            code: field.type === 'choice' ? 'unknown-choices' : 'unknown-collection',
            message: `The field “${fieldName}” is a ${field.type} of ${field.of === undefined ? 'nothing' : `“${field.of}”, which there is not`}.`,
            hint: suggest(field.of ?? '', known),
          });
        }
      }
      checkAttributes(context, fieldPlace, field);
      if (field.pattern !== undefined) {
        checkPattern(context, [...fieldPlace, 'pattern'], field.pattern);
      }
    }
  }
}

/** Attributes that only one type of field has. */
const attributesOf = { serial: 'text', accept: 'file', maxKilobytes: 'file' } as const;

function checkAttributes(context: CheckContext, place: Place, field: FieldDefinition): void {
  for (const [name, type] of Object.entries(attributesOf)) {
    if (field[name as keyof typeof attributesOf] === undefined || field.type === type) continue;
    report(context, [...place, name], {
      code: 'attribute-without-effect',
      message: `“${name}” says nothing about a ${field.type}.`,
      hint: `It is for a ${type}.`,
      mend: [{ op: 'remove', path: toPointer([...place, name]) }],
    });
  }
}
