import type { FieldDefinition } from '../../definition/app-schema.ts';
import type { FormFieldDefinition } from '../../definition/content/forms-schema.ts';
import type { ComponentOf } from '../../definition/content-schema.ts';
import { fieldText } from '../../records/field-value.ts';
import { acceptedFiles, fileNameIn } from '../../records/file-value.ts';
import { fieldName } from '../../records/plan-save.ts';
import { markOf } from '../../records/seen.ts';
import type { Anchor, AskNode, Box, FormNode } from '../nodes.ts';
import type { RecordData } from '../material.ts';
import { limitsOf, optionsOf } from './filters.ts';
import type { Shower } from '../shower.ts';

interface RecordForm {
  name: string;
  action: 'create' | 'change' | 'remove';
  collection: string;
  label: string;
  fields?: readonly FormFieldDefinition[] | undefined;
  submit?: string | undefined;
}

const buttons = { create: 'Save', change: 'Save', remove: 'Remove' };

export function form(component: ComponentOf<'form'>, shower: Shower): FormNode {
  const collection = component.collection ?? shower.declaration(component.bind ?? '')?.of ?? '';
  const record = shower.material.data.records[component.bind ?? ''] ?? {};
  return recordForm({ ...component, collection, label: shower.text(component.label) }, record, shower);
}

/** A form for a record, with what stands in it: what was typed and could not be saved, or what the record holds. */
export function recordForm(given: RecordForm, record: RecordData, shower: Shower): FormNode {
  const { name, action, collection, label, fields = [] } = given;
  const definition = shower.material.app.collections?.[collection];
  const state = shower.material.forms?.[name];
  const keyOf = (field: string) => shower.material.app.collections?.[definition?.fields[field]?.of ?? '']?.keyField;
  const boxes = fields.map((field): Box => {
    const called = fieldName(field);
    const declared = definition?.fields[called];
    const more = typeof field === 'string' ? undefined : field;
    const target = keyOf(called);
    const initial = action === 'create' ? more?.value && shower.evaluator.value(more.value) : record[called];
    const problem = state?.problems[called];
    const help = [more?.help === undefined ? declared?.help : shower.text(more.help), declared?.type === 'file' && acceptedFiles(declared)]
      .filter((sentence) => typeof sentence === 'string' && sentence !== '')
      .join(' ');
    const value = state?.values[called] ?? fieldText(initial, target === undefined ? undefined : { keyField: target });
    return {
      ...boxFor(declared, more?.lines, shower),
      name: called,
      label: more?.label === undefined ? shower.fieldLabel(collection, called) : shower.text(more.label),
      value,
      ...(declared?.type === 'file' && value !== '' ? { present: presentFile(value, shower) } : {}),
      ...(help === '' ? {} : { help }),
      ...(problem === undefined ? {} : { problem }),
    };
  });
  shower.forms.add(name);
  return {
    show: 'form',
    name,
    id: shower.newId(),
    label,
    action: shower.change({}).written.address ?? '',
    boxes,
    button: shower.text(given.submit, buttons[action]),
    removes: action === 'remove',
    files: boxes.some(({ kind }) => kind === 'file'),
    ...(action === 'change' ? { seen: markOf(record, fields.map(fieldName), keyOf) } : {}),
    ...(shower.material.once === undefined ? {} : { once: shower.material.once }),
    ...(state?.problem === undefined ? {} : { problem: state.problem }),
  };
}

function presentFile(value: string, shower: Shower): Anchor {
  const href = shower.fileAddress(value);
  return { text: fileNameIn(value), ...(href === undefined ? {} : { href }) };
}

type Boxed = Pick<FieldDefinition, 'type' | 'of' | 'min' | 'max' | 'maxLength' | 'required' | 'accept'>;

/** The kind of box that a field or a parameter is typed into. */
function boxFor(declared: Boxed | undefined, lines: number | undefined, shower: Shower): Omit<Box, 'name' | 'label' | 'value'> {
  const required = declared?.required === true;
  if (declared?.type === 'file') return { kind: 'file', required, ...(declared.accept ? { accept: declared.accept.join(',') } : {}) };
  if (declared?.type === 'boolean') return { kind: 'check', required: false };
  if (declared?.type === 'choice' || declared?.type === 'record') {
    const options = optionsOf(declared, shower);
    // A collection too large to choose from: then its key is typed.
    if (options.length === 0) return { kind: 'text', required };
    return { kind: 'select', required, options: [{ value: '', text: required ? 'Choose…' : '—' }, ...options] };
  }
  if (lines !== undefined && lines > 1) return { ...limitsOf(declared ?? {}, 'text'), kind: 'lines', lines, required };
  return { ...limitsOf(declared ?? {}, declared?.type), required };
}

/** A form whose answers are the parameters of the page that it leads to. */
export function ask(component: ComponentOf<'ask'>, shower: Shower): AskNode {
  const { page, values } = component;
  const declared = shower.material.app.pages[page]?.parameters ?? {};
  // Where a path would lack a value there is no address, and the form leads to the app's first page.
  const address = shower.href({ page, ...(values === undefined ? {} : { values }) }) ?? (shower.app.mount || '/');
  return {
    show: 'ask',
    id: shower.newId(),
    label: shower.text(component.label),
    form: shower.formFor(page, address),
    boxes: component.boxes.map((name) => {
      const declaration = declared[name];
      const { type, of, min, max, maxLength, label, help } = declaration ?? { type: 'text' as const };
      const boxed: Boxed = { type: type as Boxed['type'], of, min, max, maxLength, required: declaration?.required };
      return {
        ...boxFor(boxed, undefined, shower),
        name,
        label: label ?? shower.fieldLabel(undefined, name),
        value: '',
        ...(help === undefined ? {} : { help }),
      };
    }),
    button: shower.text(component.submit, 'Go'),
  };
}
