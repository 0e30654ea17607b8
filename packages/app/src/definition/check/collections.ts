import { DeclarationError, quote, toPointer, withArticle } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import type { FieldDefinition } from '../app-definition.ts';
import { fieldAttributes } from '../field-attributes.ts';
import { parameterOf } from '../../records/field-value.ts';
import { nextSerial, serialParts, serialProblem } from '../../records/serial.ts';
import { checkComputed } from './computed.ts';
import { fixName } from './fix-name.ts';
import { checkPattern } from './patterns.ts';
import { report, type CheckContext, type Place } from './context.ts';

/** Collections: the key and title are fields, references lead somewhere, patterns are patterns. */
export function checkCollections(context: CheckContext): void {
  const { collections = {}, choices = {} } = context.definition;
  for (const [name, collection] of Object.entries(collections)) {
    const place = ['collections', name];
    const fields = Object.keys(collection.fields);
    for (const attribute of ['keyField', 'titleField'] as const) {
      const field = collection[attribute];
      if (field === undefined || Object.hasOwn(collection.fields, field)) continue;
      report(context, [...place, attribute], {
        code: 'unknown-field',
        message: `The collection “${name}” has no field “${field}” to be its ${attribute === 'keyField' ? 'key' : 'title'}.`,
        hint: suggest(field, fields),
        ...fixName([...place, attribute], field, fields),
      });
    }
    const key = collection.fields[collection.keyField];
    if (key && key.type !== 'text') {
      report(context, [...place, 'keyField'], {
        code: 'key-not-text',
        message: `The key “${collection.keyField}” is ${withArticle(key.type)}.`,
        hint: 'A key is a text field.',
      });
    }
    for (const [index, former] of (collection.formerKeys ?? []).entries()) {
      const field = collection.fields[former];
      if (field === undefined) {
        report(context, [...place, 'formerKeys', index], {
          code: 'unknown-field',
          message: `The collection “${name}” has no field “${former}” that could have been its key.`,
          hint: suggest(former, fields),
          ...fixName([...place, 'formerKeys', index], former, fields),
        });
      } else if (field.type !== 'text' || (field.unique !== true && former !== collection.keyField)) {
        report(context, [...place, 'formerKeys', index], {
          code: 'former-key-not-unique',
          message: `Two records may have the same value of “${former}”, so it cannot say which of them an old address means.`,
          hint: 'A former key is a text field with “unique: true”.',
        });
      }
    }
    for (const [fieldName, field] of Object.entries(collection.fields)) {
      const fieldPlace = [...place, 'fields', fieldName];
      if (field.type === 'choice' || field.type === 'record') {
        const known = Object.keys(field.type === 'choice' ? choices : collections);
        if (field.of === undefined || !known.includes(field.of)) {
          report(context, field.of === undefined ? fieldPlace : [...fieldPlace, 'of'], {
            code: field.type === 'choice' ? 'unknown-choices' : 'unknown-collection',
            message: `The field “${fieldName}” is ${withArticle(field.type)} of ${field.of === undefined ? 'nothing' : `“${field.of}”, which there is not`}.`,
            hint: suggest(field.of ?? '', known),
          });
        }
      }
      checkAttributes(context, fieldPlace, field);
      checkFieldLimits(context, fieldPlace, field);
      if (field.pattern !== undefined) {
        checkPattern(context, [...fieldPlace, 'pattern'], field.pattern);
      }
      checkSerial(context, fieldPlace, field);
    }
    checkComputed(context, place, collection);
  }
}

function checkAttributes(context: CheckContext, place: Place, field: FieldDefinition): void {
  for (const [name, types] of Object.entries(fieldAttributes)) {
    if (field[name as keyof typeof fieldAttributes] === undefined || (types as readonly string[]).includes(field.type)) continue;
    report(context, [...place, name], {
      code: 'attribute-without-effect',
      message: `“${name}” says nothing about ${withArticle(field.type)}.`,
      hint: `It is for ${types.map((type) => withArticle(type)).join(' or ')}.`,
      fix: [{ op: 'remove', path: toPointer([...place, name]) }],
    });
  }
}

/** Limits are checked by the parameter whose texts are the field’s: what an address may say, a field may hold. */
function checkFieldLimits(context: CheckContext, place: Place, field: FieldDefinition): void {
  if (!(fieldAttributes.min as readonly string[]).includes(field.type)) return;
  try {
    parameterOf(field, {});
  } catch (error) {
    if (!(error instanceof DeclarationError)) throw error;
    report(context, [...place, error.attribute], {
      code: error.code,
      message: error.message,
      ...(error.hint === undefined ? {} : { hint: error.hint }),
    });
  }
}

/** A field that counts by itself has to take its own numbers, also the one after 9999. */
function checkSerial(context: CheckContext, place: Place, field: FieldDefinition): void {
  const { serial } = field;
  if (serial === undefined || field.type !== 'text') return;
  const { beginning, digits } = serialParts(serial);
  const first = nextSerial(serial, undefined);
  for (const number of [first, nextSerial(serial, beginning + '9'.repeat(digits))]) {
    const problem = serialProblem(field, number);
    if (problem === undefined) continue;
    report(context, [...place, 'serial'], {
      code: number === first ? 'serial-refused' : 'serial-outgrows-field',
      severity: number === first ? 'error' : 'warning',
      message: `The field refuses its own number “${number}”: ${problem}`,
      hint: `Let the pattern and the maximum length accept every number, for example ${quote(`${beginning}[0-9]{${String(digits)},}`, 60)}.`,
    });
    return;
  }
}
