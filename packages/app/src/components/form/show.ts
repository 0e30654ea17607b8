import type { form } from './definition.ts';
import { fieldText } from '../../records/field-value.ts';
import { acceptedFiles, fileNameIn } from '../../records/file-value.ts';
import { fieldName } from '../../records/plan-save.ts';
import { markOf } from '../../records/seen.ts';
import type { Anchor, Box } from '../../view/node-parts.ts';
import type { ViewContext } from '../../view/view-context.ts';
import type { ComponentOf } from '../kind.ts';
import { boxFor } from '../shared/form-box.ts';

/** A form that is sent to the service, which saves a record. */
export interface FormNode {
  show: 'form';
  name: string;
  id: string;
  label: string;
  /** The record that it changes or removes, as the address names it. */
  of?: string;
  /** The present address, which the form is sent to. */
  action: string;
  boxes: Box[];
  button: string;
  /** It takes something away. */
  removes: boolean;
  /** It sends files, hence as multipart/form-data (RFC 7578). */
  files: boolean;
  /** What the record looked like when the form was drawn, to notice that another person changed it meanwhile. */
  seen?: string;
  /** By it a form that is sent twice is known. */
  once?: string;
  problem?: string;
}

const buttons = { create: 'Save', change: 'Save', remove: 'Remove' } as const;

/** A form for a record, with what stands in it: what was typed and could not be saved, or what the record holds. */
export function show(component: ComponentOf<typeof form>, context: ViewContext): FormNode {
  const { name, action, bind = '', fields = [] } = component;
  const collection = component.collection ?? context.declaration(bind)?.of ?? '';
  const record = context.payload.data.records[bind] ?? {};
  const definition = context.payload.app.collections?.[collection];
  const state = context.payload.forms?.[name];
  const keyOf = (field: string) => context.payload.app.collections?.[definition?.fields[field]?.of ?? '']?.keyField;
  const boxes = fields.map((field): Box => {
    const called = fieldName(field);
    const declared = definition?.fields[called];
    const more = typeof field === 'string' ? undefined : field;
    const target = keyOf(called);
    const initial = action === 'create' ? more?.value && context.evaluator.value(more.value) : record[called];
    const problem = state?.problems[called];
    const help = [context.text(more?.help ?? declared?.help), declared?.type === 'file' && acceptedFiles(declared, context.say)]
      .filter((sentence) => typeof sentence === 'string' && sentence !== '')
      .join(' ');
    const value = state?.values[called] ?? fieldText(initial, target === undefined ? undefined : { keyField: target });
    return {
      ...boxFor(declared, more?.lines, context),
      name: called,
      label: more?.label === undefined ? context.fieldLabel(collection, called) : context.text(more.label),
      value,
      ...(declared?.type === 'file' && value !== '' ? { present: presentFile(value, context) } : {}),
      ...(help === '' ? {} : { help }),
      ...(problem === undefined ? {} : { problem }),
    };
  });
  context.forms.add(name);
  return {
    show: 'form',
    name,
    id: context.newId(),
    label: context.text(component.label),
    action: context.change({}).written.address ?? '',
    ...(action === 'create' ? {} : { of: fieldText(record[definition?.keyField ?? '']) }),
    boxes,
    button: context.text(component.submit, context.say(buttons[action])),
    removes: action === 'remove',
    files: boxes.some(({ kind }) => kind === 'file'),
    ...(action === 'change' ? { seen: markOf(record, fields.map(fieldName), keyOf) } : {}),
    ...(context.payload.once === undefined ? {} : { once: context.payload.once }),
    ...(state?.problem === undefined ? {} : { problem: state.problem }),
  };
}

function presentFile(value: string, context: ViewContext): Anchor {
  const href = context.fileAddress(value);
  return { text: fileNameIn(value), ...(href === undefined ? {} : { href }) };
}
