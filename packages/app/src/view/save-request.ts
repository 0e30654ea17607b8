import type { AppDefinition, Component, FieldDefinition, PageDefinition } from '../definition/app-definition.ts';
import { componentsIn, innerContent } from '../components/inner-content.ts';
import type { SavingForm } from '../components/kind.ts';
import { kindOf } from '../components/kinds.ts';
import { formOf } from '../components/walk-content.ts';
import { recordType } from '../expressions/page-scope.ts';
import type { Values } from '@pallmist/address/declare';
import { fieldName, type SaveRequest } from '../records/plan-save.ts';
import { composeMail, type WrittenMail } from '../mails/compose.ts';
import { markOf } from '../records/seen.ts';
import type { PagePayload, RecordData } from './page-payload.ts';
import { PageView } from './page-view.ts';
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
  /** What to say when it is saved; empty for nothing. @param saved as with `next` */
  said(saved: RecordData): string;
  /** Where one goes when it is saved. @param saved the record as it is now, or as it was before it was removed */
  next(saved: RecordData): string | undefined;
}

/** A form of a page's content, and the dialog that it stands in. */
interface Place {
  form: SavingForm;
  dialog: string | undefined;
}

/**
 * Finds the form that was sent, if the page shows it to this person for this address, and settles what it asks for:
 * what nobody types is evaluated here and never taken from the request.
 */
export function sentForm(
  app: Pick<AppDefinition, 'collections' | 'mails' | 'pages' | 'parameters'>,
  page: PageDefinition,
  payload: PagePayload,
  tools: ShowTools,
  name: string,
): SentForm | undefined {
  const view = new PageView(payload, tools);
  view.showAll(page.content);
  const place = view.forms.has(name) ? findForm(app, page, page.content, name) : undefined;
  if (place === undefined) return undefined;
  const { action, collection = '', parameter, fields, inRow, mail: mailName, then, done, ...form } = place.form;
  const definition = app.collections?.[collection];
  const record = parameter === undefined ? undefined : payload.data.records[parameter];
  const key = record?.[definition?.keyField ?? ''];
  const evaluator = inRow && record ? view.evaluator.with('row', record, recordType(payload.app, collection)) : view.evaluator;
  const set = Object.entries(form.set ?? {}).map(([field, value]) => [field, evaluator.value(value)]);
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
    sendsMail: mailName !== undefined,
    mail(saved, base) {
      const mail = mailName === undefined ? undefined : app.mails?.[mailName];
      if (mail === undefined) return undefined;
      return composeMail(mail, {
        evaluator: view.evaluator.with('saved', saved, recordType(payload.app, collection, 1)),
        href: (link, evaluator) => view.href(link, evaluator),
        base,
        draft: payload.draft,
      });
    },
    said: (saved) =>
      done === undefined ? view.say('Saved.') : view.evaluator.with('saved', saved, recordType(payload.app, collection, 0)).text(done),
    next(saved) {
      if (then) return view.href(then, view.evaluator.with('saved', saved, recordType(payload.app, collection, 0)));
      const over: Values = {};
      if (place.dialog !== undefined) over[place.dialog] = undefined;
      if (parameter !== undefined && action !== 'create' && (inRow || action === 'remove')) over[parameter] = undefined;
      return view.change(over).written.address ?? (view.app.mount === '' ? '/' : view.app.mount);
    },
  };
}

/** The file fields that a form of a page shows, by name; for a form that cannot be carried out yet, too. */
export function fileFieldsOf(
  app: Pick<AppDefinition, 'collections' | 'parameters'>,
  page: PageDefinition,
  name: string,
): Record<string, FieldDefinition> {
  const form = findForm(app, page, page.content, name)?.form;
  const fields = app.collections?.[form?.collection ?? '']?.fields ?? {};
  return Object.fromEntries(
    (form?.fields ?? []).map(fieldName).flatMap((shown) => {
      const field = fields[shown];
      return field?.type === 'file' ? [[shown, field]] : [];
    }),
  );
}

/** @param opener the parameter that opens what the content stands in */
function findForm(
  app: Pick<AppDefinition, 'parameters'>,
  page: PageDefinition,
  content: readonly Component[],
  name: string,
  opener?: string,
): Place | undefined {
  for (const component of content) {
    const form = formOf(component, page, app);
    if (form?.name === name) return { form, dialog: opener };
    const opens = kindOf(component)?.opens === true && typeof component['bind'] === 'string' ? component['bind'] : opener;
    for (const inner of innerContent(component)) {
      const found = findForm(app, page, inner.content, name, opens);
      if (found) return found;
    }
  }
  return undefined;
}

/** Names of the forms that a page has, hidden ones too. */
export function formNamesOf(page: PageDefinition): Set<string> {
  const names = [...componentsIn(page.content)].map((component) => formOf(component, page, {})?.name);
  return new Set(names.filter((name) => name !== undefined));
}
