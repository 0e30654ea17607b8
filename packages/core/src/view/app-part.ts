import type { AppDefinition, PageDefinition } from '../definition/app-schema.ts';
import { linksFrom, walkContent } from '../definition/component-facets.ts';
import { expressionsOf } from '../expressions/template-text.ts';
import { fieldName } from '../records/plan-save.ts';
import type { AppPart } from './material.ts';
import { expressionsIn } from './page-programs.ts';

/** Cuts out of an app what showing one page needs, so that a browser is sent no more than that. */
export function appPartFor(definition: AppDefinition, pageName: string): AppPart {
  const page = definition.pages[pageName];
  const pageNames = new Set([
    pageName,
    ...(page ? linksFrom(page, definition.mails) : []),
    ...(definition.navigation ?? []).map(({ to }) => to.page),
  ]);
  if (definition.signIn) pageNames.add(definition.signIn.page);
  const pages: AppPart['pages'] = {};
  for (const name of pageNames) {
    const linked = definition.pages[name];
    if (linked) pages[name] = { address: linked.address, parameters: linked.parameters };
  }
  const collections = collectionsOf(definition, page, pages);
  const choices = choicesOf(definition, pages, collections);
  return {
    app: definition.app,
    title: definition.title,
    mount: definition.mount,
    timeZone: definition.timeZone,
    parameters: definition.parameters,
    language: definition.language,
    words: definition.words,
    sites: definition.sites,
    navigation: definition.navigation,
    collections,
    choices,
    pages,
    ...(definition.signIn
      ? {
          signIn: {
            page: definition.signIn.page,
            reasons: withoutUndefined(definition.signIn.reasons ?? {}),
            ...(definition.signIn.byMail ? { byMail: true } : {}),
          },
        }
      : {}),
  };
}

/** Every declaration of a parameter on these pages, those of lists' items too. */
function declarationsIn(definition: AppDefinition, pages: AppPart['pages']): { type: string; of?: string | undefined }[] {
  const declared = [definition, ...Object.values(pages)].flatMap(({ parameters }) => Object.values(parameters ?? {}));
  return declared.flatMap((declaration) => (declaration.items ? [declaration, declaration.items] : [declaration]));
}

/** Whether a sealed parameter is among those of the part. */
export function usesSealed(part: AppPart): boolean {
  return [part, ...Object.values(part.pages)].some(({ parameters }) =>
    Object.values(parameters ?? {}).some(({ sealed }) => sealed !== undefined && sealed !== false),
  );
}

/** Whether a packed parameter is among those of the part. */
export function usesPacked(part: AppPart): boolean {
  return [part, ...Object.values(part.pages)].some(({ parameters }) =>
    Object.values(parameters ?? {}).some(({ type }) => type === 'packed'),
  );
}

function collectionsOf(
  definition: AppDefinition,
  page: PageDefinition | undefined,
  pages: AppPart['pages'],
): NonNullable<AppPart['collections']> {
  const wanted = new Set<string>();
  for (const { component } of walkContent(page?.content ?? []))
    if (component.show === 'form' && component.collection !== undefined) wanted.add(component.collection);
  for (const read of Object.values(page?.reads ?? {})) wanted.add(read.from);
  for (const { of, type } of declarationsIn(definition, pages)) {
    if (of !== undefined && (type === 'record' || type === 'sort')) wanted.add(of);
  }
  // A record shows the records that it refers to, one step deep.
  for (const name of [...wanted]) {
    for (const field of Object.values(definition.collections?.[name]?.fields ?? {})) {
      if (field.type === 'record' && field.of !== undefined) wanted.add(field.of);
    }
  }
  return pick(definition.collections ?? {}, wanted);
}

function choicesOf(
  definition: AppDefinition,
  pages: AppPart['pages'],
  collections: NonNullable<AppPart['collections']>,
): NonNullable<AppPart['choices']> {
  const wanted = new Set<string>();
  const declarations = [...declarationsIn(definition, pages), ...Object.values(collections).flatMap(({ fields }) => Object.values(fields))];
  for (const { type, of } of declarations) if (type === 'choice' && of !== undefined) wanted.add(of);
  return pick(definition.choices ?? {}, wanted);
}

function pick<Value>(from: Record<string, Value>, names: Set<string>): Record<string, Value> {
  return Object.fromEntries(Object.entries(from).filter(([name]) => names.has(name)));
}

function withoutUndefined<Value>(given: Record<string, Value | undefined>): Record<string, Value> {
  return Object.fromEntries(Object.entries(given).filter((entry): entry is [string, Value] => entry[1] !== undefined));
}

function mailExpressions(mail: NonNullable<AppDefinition['mails']>[string] | undefined): string[] {
  if (mail === undefined) return [];
  const links = Object.values(mail.links ?? {}).flatMap(({ text, to }) => [text, ...strings(Object.values(to.values ?? {}))]);
  return [mail.to, mail.subject, mail.text, ...links].flatMap(expressionsOf);
}

/** Names of all fields that a page’s components and expressions mention; no other field of a record is sent to a browser. */
export function fieldsNamedOn(page: PageDefinition, mails: AppDefinition['mails'] = {}): Set<string> {
  const names = new Set<string>();
  for (const { component } of walkContent(page.content)) {
    const paths: string[] = [];
    if (component.show === 'table') {
      paths.push(...component.columns.map(({ field }) => field ?? ''), ...(component.edit?.fields ?? []).map(fieldName));
    }
    if (component.show === 'details') paths.push(...component.fields.filter((field) => typeof field === 'string'));
    if (component.show === 'form') paths.push(...(component.fields ?? []).map(fieldName));
    for (const name of paths.flatMap((path) => path.split('.'))) names.add(name);
  }
  const inMails = [...walkContent(page.content)].flatMap(({ facets }) => facets.mails).flatMap((name) => mailExpressions(mails[name]));
  for (const expression of [...expressionsIn(page, undefined), ...inMails]) {
    for (const [name] of expression.matchAll(/[A-Za-z_]\w*/g)) names.add(name);
  }
  return names;
}

const strings = (values: readonly unknown[]) => values.filter((value) => typeof value === 'string');
