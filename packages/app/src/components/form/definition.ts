import { z } from 'zod';
import { link, name, text } from '../../definition/schema-parts.ts';
import { fieldName } from '../../records/plan-save.ts';
import { componentKind } from '../component-kind.ts';
import { done, formField, formName, setValues } from '../shared/form-field-schemas.ts';
import { referToFormFields } from '../shared/form-fields.ts';
import { checkForm } from './check.ts';

export const form = componentKind({
  name: 'form',
  label: 'Form',
  sentence: 'Creates, changes or removes a record; it may send a mail and lead on.',
  example: {
    name: 'write-note',
    label: 'Write a field note',
    action: 'create',
    collection: 'notes',
    fields: ['text', { field: 'photo', help: 'At most 5 MB.' }],
    set: { specimen: '{param.specimen}', written: '{today}' },
    submit: 'Save the note',
    then: { page: 'specimen', values: { specimen: '{param.specimen}', note: '{saved.number}' } },
  },
  fields: {
    name: formName,
    label: text.describe('What the form is for'),
    action: z.enum(['create', 'change', 'remove']),
    collection: name.optional().describe('To create: the collection that gets the record'),
    bind: name.optional().describe('To change or remove: the record parameter that names the record'),
    fields: z.array(formField).optional(),
    set: setValues,
    submit: text.optional().describe('What the button says'),
    done,
    mail: name.optional().describe('The mail that is sent when the form has been saved'),
    then: link.optional().describe('Where the form leads afterwards; to the same page when left out, without the record if it was removed'),
  },
  refersTo(component, references) {
    references.textsOf(component, ['label', 'submit']);
    references.text(['done'], component.done, { saved: true, service: true });
    references.bind(['bind'], component.bind, ['record']);
    referToFormFields(references, [], component.fields, component.set);
    if (component.bind !== undefined) references.shown('record', component.bind, (component.fields ?? []).map(fieldName));
    if (component.mail !== undefined) references.mails.push(component.mail);
    if (component.collection !== undefined) references.collections.push(component.collection);
    references.link(['then'], component.then, { service: true, saved: component.collection });
  },
  check: checkForm,
  form: ({ name: form, action, collection, bind, fields = [], set, mail, then, done: said }, page, app) => ({
    name: form,
    action,
    collection: collection ?? (page.parameters?.[bind ?? ''] ?? app.parameters?.[bind ?? ''])?.of,
    parameter: bind,
    fields,
    set,
    inRow: false,
    done: said,
    mail,
    then,
  }),
  toSend({ set: _, mail: __, then: ___, done: ____, ...component }) {
    return component;
  },
});
