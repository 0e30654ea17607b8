import type { AppDefinition, FieldDefinition, PageDefinition } from '../definition/app-schema.ts';
import type { ComponentDefinition, ComponentOf } from '../definition/content-schema.ts';
import { componentsIn, innerContent } from '../definition/inner-content.ts';
import { recordType } from '../expressions/page-scope.ts';
import type { Values } from '@pallmist/address/declare';
import { fieldName, type SaveRequest } from '../records/plan-save.ts';
import { composeMail, type WrittenMail } from '../mails/compose.ts';
import { markOf } from '../records/seen.ts';
import type { PageMaterial, RecordData } from './material.ts';
import { Shower } from './shower.ts';
import { showContent } from './show-page.ts';
import type { ShowTools } from './tools.ts';

/** A form that was sent, found on its page. */
export interface SentForm {
  request: SaveRequest;
  /** The mark of a record as it is now, to be compared with the one that the form carries. */
  seenOf(record: RecordData): string;
  /** Whether a mail is sent when it is saved. */
  sendsMail: boolean;
  /** The mail that is to be sent when it is saved; undefined where there is none. */
  mail(saved: RecordData, base: string): WrittenMail | undefined;
  /** Where one goes when it is saved. @param saved the record as it is now, or as it was before it was removed */
  next(saved: RecordData): string | undefined;
}

/** A form of a page's content, and the dialog that it stands in. */
interface Place {
  component: ComponentOf<'form'> | ComponentOf<'table'>;
  dialog: string | undefined;
}

/**
 * Finds the form that was sent, if the page shows it to this person for this address, and settles what it asks for:
 * what nobody types is evaluated here and never taken from the request.
 */
export function sentForm(
  app: Pick<AppDefinition, 'collections' | 'mails' | 'pages'>,
  page: PageDefinition,
  material: PageMaterial,
  tools: ShowTools,
  name: string,
): SentForm | undefined {
  const shower = new Shower(material, tools);
  showContent(page.content, shower);
  const place = shower.forms.has(name) ? findForm(page.content, name) : undefined;
  if (place === undefined) return undefined;
  const { component } = place;
  const inTable = component.show === 'table';
  const parameter = inTable ? component.edit?.bind : component.bind;
  const collection = (inTable ? page.rows?.[component.rows]?.from : component.collection) ?? shower.declaration(parameter ?? '')?.of ?? '';
  const definition = app.collections?.[collection];
  const record = parameter === undefined ? undefined : material.data.records[parameter];
  const key = record?.[definition?.keyField ?? ''];
  const fields = (inTable ? component.edit?.fields : component.fields) ?? [];
  const evaluator = inTable && record ? shower.evaluator.with('row', record, recordType(material.app, collection)) : shower.evaluator;
  const set = Object.entries((inTable ? component.edit?.set : component.set) ?? {}).map(([field, value]) => [
    field,
    evaluator.value(value),
  ]);
  const action = inTable ? 'change' : component.action;
  return {
    request: {
      action,
      collection,
      fields,
      set: Object.fromEntries(set) as Record<string, unknown>,
      ...(typeof key === 'string' ? { key } : {}),
    },
    seenOf: (present) =>
      markOf(present, fields.map(fieldName), (field) => app.collections?.[definition?.fields[field]?.of ?? '']?.keyField),
    sendsMail: !inTable && component.mail !== undefined,
    mail(saved, base) {
      const mail = inTable || component.mail === undefined ? undefined : app.mails?.[component.mail];
      if (mail === undefined) return undefined;
      return composeMail(mail, {
        evaluator: shower.evaluator.with('saved', saved, recordType(material.app, collection, 1)),
        href: (link, evaluator) => shower.href(link, evaluator),
        base,
        draft: material.draft,
      });
    },
    next(saved) {
      if (!inTable && component.then)
        return shower.href(component.then, shower.evaluator.with('saved', saved, recordType(material.app, collection, 0)));
      const over: Values = {};
      if (place.dialog !== undefined) over[place.dialog] = undefined;
      if (parameter !== undefined && action !== 'create' && (inTable || action === 'remove')) over[parameter] = undefined;
      return shower.change(over).written.address ?? (shower.app.mount === '' ? '/' : shower.app.mount);
    },
  };
}

/** The file fields that a form of a page shows, by name; for a form that cannot be carried out yet, too. */
export function fileFieldsOf(
  app: Pick<AppDefinition, 'collections' | 'parameters'>,
  page: PageDefinition,
  form: string,
): Record<string, FieldDefinition> {
  const component = findForm(page.content, form)?.component;
  if (component === undefined) return {};
  const inTable = component.show === 'table';
  const parameter = inTable ? undefined : component.bind;
  const declared = page.parameters?.[parameter ?? ''] ?? app.parameters?.[parameter ?? ''];
  const collection = inTable ? page.rows?.[component.rows]?.from : (component.collection ?? declared?.of);
  const fields = app.collections?.[collection ?? '']?.fields ?? {};
  const shown = (inTable ? component.edit?.fields : component.fields) ?? [];
  return Object.fromEntries(
    shown.map(fieldName).flatMap((name) => {
      const field = fields[name];
      return field?.type === 'file' ? [[name, field]] : [];
    }),
  );
}

function findForm(content: readonly ComponentDefinition[], name: string, dialog?: string): Place | undefined {
  for (const component of content) {
    if (component.show === 'form' && component.name === name) return { component, dialog };
    if (component.show === 'table' && component.edit?.name === name) return { component, dialog };
    for (const inner of innerContent(component)) {
      const found = findForm(inner.content, name, component.show === 'dialog' ? component.bind : dialog);
      if (found) return found;
    }
  }
  return undefined;
}

/** Names of the forms that a page has, hidden ones too. */
export function formNamesOf(page: PageDefinition): Set<string> {
  const names = new Set<string>();
  for (const component of componentsIn(page.content)) {
    if (component.show === 'form') names.add(component.name);
    else if (component.show === 'table' && component.edit) names.add(component.edit.name);
  }
  return names;
}
