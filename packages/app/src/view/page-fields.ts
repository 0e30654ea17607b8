import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { walkContent } from '../components/walk-content.ts';
import { conditionsOf, operands } from '../definition/operators.ts';
import { pathsIn } from '../expressions/paths.ts';
import { expressionsOf } from '../expressions/template-text.ts';
import { FieldCollector, type FieldTree } from './field-tree.ts';

/** The fields that a page reads: of the record that each parameter names, and of the rows of each read. */
export interface PageFields {
  records: Record<string, FieldTree>;
  rows: Record<string, FieldTree>;
}

type AppPart = Pick<AppDefinition, 'collections' | 'parameters' | 'mails' | 'navigation'>;

/**
 * The fields that a page mentions, by path. No other field of a record is sent to a browser.
 * @param more what the service reads beyond what it sends: conditions, and what forms set, mail and lead to
 */
export function fieldsOn(app: AppPart, page: PageDefinition, more: 'sent' | 'service'): PageFields {
  const collector = new FieldCollector(app);
  const records = Object.entries({ ...app.parameters, ...page.parameters }).flatMap(([name, { type, of }]) =>
    type === 'record' && of !== undefined ? [[name, of] as const] : [],
  );
  const reads = Object.entries(page.rows ?? {});
  const recordRoot = (name: string) => `record.${name}`;
  const rowsRoot = (name: string) => `rows.${name}`;
  for (const [name, of] of records) {
    collector.begin(recordRoot(name), of);
    // Its title is the parameter's label.
    collector.add(recordRoot(name), []);
  }
  for (const [name, { from }] of reads) collector.begin(rowsRoot(name), from);

  const addExpression = (expression: string, row?: string) => {
    for (const [root = '', ...names] of pathsIn(expression)) {
      if (root === 'row' && row !== undefined) collector.add(rowsRoot(row), names);
      else if (root === 'record' || root === 'rows') collector.add(`${root}.${names[0] ?? ''}`, names.slice(1));
    }
  };
  const addText = (given: unknown, row?: string) => {
    if (typeof given === 'string') for (const expression of expressionsOf(given)) addExpression(expression, row);
  };
  addText(page.title);
  addText(page.description);
  for (const { text } of app.navigation ?? []) addText(text);
  for (const { notice } of page.arrival ?? []) addText(notice);
  for (const read of Object.values(page.rows ?? {})) {
    if (read.when !== undefined) addExpression(read.when);
    for (const value of [read.sort, read.page, read.size, ...conditionsOf(read).flatMap(({ condition }) => operands<unknown>(condition))])
      addText(value);
  }
  for (const { component, references } of walkContent(page.content)) {
    if (component.when !== undefined) addExpression(component.when);
    for (const { text, row } of references.texts) addText(text, row);
    for (const { value, row, service } of references.values) if (more === 'service' || service !== true) addText(value, row);
    for (const { link, row, service } of references.links)
      if (more === 'service' || service !== true) for (const value of Object.values(link.values ?? {})) addText(value, row);
    for (const { root, path } of references.fields) collector.add(`${root.of}.${root.name}`, path.split('.'));
    if (more === 'service') for (const name of references.mails) for (const text of textsOfMail(app.mails?.[name])) addText(text);
  }
  return {
    records: Object.fromEntries(records.map(([name]) => [name, collector.tree(recordRoot(name))])),
    rows: Object.fromEntries(reads.map(([name]) => [name, collector.tree(rowsRoot(name))])),
  };
}

/** Every text of a mail, those of its links too. */
function textsOfMail(mail: NonNullable<AppDefinition['mails']>[string] | undefined): unknown[] {
  if (mail === undefined) return [];
  const links = Object.values(mail.links ?? {}).flatMap(({ text, to }) => [text, ...Object.values(to.values ?? {})]);
  return [mail.to, mail.subject, mail.text, ...links];
}

/** The fields of the record that a form has saved, as far as its page after saving and its mail name them. */
export function savedFields(app: AppPart, page: PageDefinition, collection: string): FieldTree {
  const collector = new FieldCollector(app);
  collector.begin('saved', collection);
  const add = (given: unknown) => {
    if (typeof given !== 'string') return;
    for (const expression of expressionsOf(given))
      for (const [root = '', ...names] of pathsIn(expression)) if (root === 'saved') collector.add('saved', names);
  };
  for (const { references } of walkContent(page.content)) {
    for (const { link } of references.links) for (const value of Object.values(link.values ?? {})) add(value);
    for (const { text, saved } of references.texts) if (saved) add(text);
    for (const name of references.mails) for (const text of textsOfMail(app.mails?.[name])) add(text);
  }
  return collector.tree('saved');
}
