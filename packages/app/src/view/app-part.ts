import type { AppDefinition, PageDefinition } from '../definition/app-definition.ts';
import { linksFrom, walkContent } from '../components/walk-content.ts';
import { firstPageOf } from './first-page.ts';
import { linkedBy } from './linked-page.ts';
import { lookVersion } from './look.ts';
import type { AppPart } from './page-payload.ts';

/** Cuts out of an app what showing one page needs, so that a browser is sent no more than that. */
export function appPartFor(definition: AppDefinition, pageName: string, page = definition.pages[pageName]): AppPart {
  const whole = new Set([
    pageName,
    ...(page ? linksFrom(page, definition.mails) : []),
    ...(definition.signIn ? [definition.signIn.page] : []),
  ]);
  // The title leads to the first page, in the present language.
  const first = definition.language === undefined ? undefined : firstPageOf(definition.pages);
  const around = [
    ...[...(definition.navigation ?? []), ...(definition.footer?.links ?? [])].map(({ to }) => to),
    ...(first === undefined ? [] : [{ page: first }]),
  ];
  const pages: AppPart['pages'] = {};
  for (const name of new Set([...whole, ...around.map((to) => to.page)])) {
    const linked = definition.pages[name];
    if (linked === undefined) continue;
    const { address, parameters } = linked;
    pages[name] = whole.has(name)
      ? { address, parameters }
      : linkedBy(
          around.filter((to) => to.page === name),
          linked,
        );
  }
  const collections = collectionsOf(definition, page, pages);
  const choices = choicesOf(definition, pages, collections);
  return {
    app: definition.app,
    title: definition.title,
    mount: definition.mount,
    ...(definition.look ? { look: `${definition.mount === '/' ? '' : definition.mount}/~look.css?${lookVersion(definition.look)}` } : {}),
    ...(definition.look?.logo === undefined
      ? {}
      : { logo: `${definition.mount === '/' ? '' : definition.mount}/~files/${encodeURIComponent(definition.look.logo)}` }),
    ...(definition.footer === undefined ? {} : { footer: definition.footer }),
    timeZone: definition.timeZone,
    parameters: definition.parameters,
    language: definition.language,
    ...(definition.phrases === undefined ? {} : { phrases: definition.phrases }),
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
  for (const { references } of walkContent(page?.content ?? [])) for (const name of references.collections) wanted.add(name);
  for (const read of Object.values(page?.rows ?? {})) wanted.add(read.from);
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
