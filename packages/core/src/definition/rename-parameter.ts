import { toPointer, type PatchOperation } from '../problem.ts';
import { operators } from './operators.ts';
import type { AppDefinition } from './app-schema.ts';
import { walkContent } from './component-facets.ts';
import type { LinkDefinition } from './schema-parts.ts';

/**
 * The JSON Patch that renames a parameter everywhere: in the address template, the declaration, the bindings, the
 * expressions of its page, the `resets` of its neighbours, and the links of every page that leads to it.
 * @returns an empty patch when there is no such parameter or the new name is taken
 */
export function renameParameter(definition: AppDefinition, pageName: string, from: string, to: string): PatchOperation[] {
  const page = definition.pages[pageName];
  const parameters = page?.parameters ?? {};
  if (!page || from === to || !Object.hasOwn(parameters, from) || Object.hasOwn(parameters, to)) return [];
  const place = ['pages', pageName];
  const patch: PatchOperation[] = [
    { op: 'replace', path: toPointer([...place, 'address']), value: renameInTemplate(page.address, from, to) },
    { op: 'move', from: toPointer([...place, 'parameters', from]), path: toPointer([...place, 'parameters', to]) },
  ];
  for (const [name, { resets }] of Object.entries(parameters)) {
    const index = resets?.indexOf(from) ?? -1;
    if (index !== -1)
      patch.push({ op: 'replace', path: toPointer([...place, 'parameters', name === from ? to : name, 'resets', index]), value: to });
  }
  for (const { component, path, facets } of walkContent(page.content)) {
    for (const bind of facets.binds) {
      if (bind.name === from) patch.push({ op: 'replace', path: toPointer([...place, ...path, ...bind.path]), value: to });
    }
    if (component.when !== undefined) renameText(patch, [...place, ...path, 'when'], component.when, from, to);
    for (const text of facets.texts) renameText(patch, [...place, ...path, ...text.path], text.text, from, to);
    for (const { path: below, link } of facets.links) {
      for (const [name, value] of Object.entries(link.values ?? {})) {
        if (typeof value === 'string') renameText(patch, [...place, ...path, ...below, 'values', name], value, from, to);
      }
    }
  }
  renameText(patch, [...place, 'title'], page.title, from, to);
  renameInReads(patch, place, page.reads ?? {}, from, to);
  for (const { place: at, link } of linksTo(definition, pageName)) {
    if (Object.hasOwn(link.values ?? {}, from)) {
      patch.push({ op: 'move', from: toPointer([...at, 'values', from]), path: toPointer([...at, 'values', to]) });
    }
  }
  return patch;
}

type Place = (string | number)[];

function renameInTemplate(template: string, from: string, to: string): string {
  return template.replaceAll(/\{[^{}]*\}/g, (part) => part.replaceAll(/[A-Za-z][A-Za-z0-9_-]*/g, (name) => (name === from ? to : name)));
}

/** Renames `param.from` and `record.from` where they stand in a text’s expressions. */
function renameText(patch: PatchOperation[], place: Place, text: string, from: string, to: string): void {
  const renamed = text.replaceAll(/\b((?:param|record)\.\??)([A-Za-z_]\w*)/g, (whole, scope: string, name: string) =>
    name === from ? scope + to : whole,
  );
  if (renamed !== text) patch.push({ op: 'replace', path: toPointer(place), value: renamed });
}

function renameInReads(
  patch: PatchOperation[],
  place: Place,
  reads: NonNullable<AppDefinition['pages'][string]['reads']>,
  from: string,
  to: string,
): void {
  for (const [name, read] of Object.entries(reads)) {
    const at = [...place, 'reads', name];
    for (const key of ['sort', 'page'] as const) {
      const value = read[key];
      if (typeof value === 'string') renameText(patch, [...at, key], value, from, to);
    }
    for (const [index, condition] of (read.where ?? []).entries()) {
      for (const key of operators) {
        const value = condition[key];
        if (typeof value === 'string') renameText(patch, [...at, 'where', index, key], value, from, to);
      }
    }
  }
}

/** Every link of the app that leads to a page. */
function linksTo(definition: AppDefinition, pageName: string): { place: Place; link: LinkDefinition }[] {
  const links: { place: Place; link: LinkDefinition }[] = [];
  for (const [name, page] of Object.entries(definition.pages)) {
    for (const { path, facets } of walkContent(page.content)) {
      for (const { path: below, link } of facets.links) links.push({ place: ['pages', name, ...path, ...below], link });
    }
  }
  for (const [index, entry] of (definition.navigation ?? []).entries()) links.push({ place: ['navigation', index, 'to'], link: entry.to });
  if (definition.signIn?.first) links.push({ place: ['signIn', 'first'], link: definition.signIn.first });
  return links.filter(({ link }) => link.page === pageName);
}
