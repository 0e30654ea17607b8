import { type PatchOperation, formerTemplate, toPointer, withTemplate } from '@pallmist/address/declare';
import { throughBlocks } from '../blocks/through-blocks.ts';
import type { AppDefinition } from '../app-definition.ts';
import { walkContent } from '../../components/walk-content.ts';
import { keepFormer } from './keep-former.ts';
import { mayHoldExpressions, textsIn, waysIn, type FoundText } from './places.ts';

/**
 * The JSON Patch that renames a parameter everywhere: in the address template, the declaration, the bindings, the
 * expressions of its page, the `resets` of its neighbours, and the links of every page that leads to it.
 * @param keepOld the old name still works; one that stands in the path is in no address, and needs none of that
 * @returns an empty patch when there is no such parameter or the new name is taken
 */
export const renameParameter = throughBlocks(
  (definition: AppDefinition, pageName: string, from: string, to: string, keepOld = true): PatchOperation[] => {
    const page = definition.pages[pageName];
    const parameters = page?.parameters ?? {};
    if (!page || from === to || !Object.hasOwn(parameters, from) || Object.hasOwn(parameters, to)) return [];
    const place = ['pages', pageName];
    const patch: PatchOperation[] = [
      { op: 'replace', path: toPointer([...place, 'address']), value: renameInTemplate(page.address, from, to) },
      { op: 'move', from: toPointer([...place, 'parameters', from]), path: toPointer([...place, 'parameters', to]) },
    ];
    const inPath = new RegExp(`\\{/?${from}\\}`).test(page.address);
    if (keepOld && !inPath) patch.push(...keepFormer([...place, 'parameters', to, 'formerNames'], parameters[from]?.formerNames, from, to));
    for (const [index, former] of (page.formerAddresses ?? []).entries()) {
      const at = [...place, 'formerAddresses', index];
      const renamed = withTemplate(former, renameInTemplate(formerTemplate(former), from, to));
      if (formerTemplate(renamed) !== formerTemplate(former)) patch.push({ op: 'replace', path: toPointer(at), value: renamed });
      if (typeof former === 'object' && Object.hasOwn(former.values, from))
        patch.push({ op: 'move', from: toPointer([...at, 'values', from]), path: toPointer([...at, 'values', to]) });
    }
    for (const [name, { resets, tied }] of Object.entries(parameters)) {
      for (const [field, other] of Object.entries(tied ?? {}))
        if (other === from)
          patch.push({ op: 'replace', path: toPointer([...place, 'parameters', name === from ? to : name, 'tied', field]), value: to });
      const index = resets?.indexOf(from) ?? -1;
      if (index !== -1)
        patch.push({ op: 'replace', path: toPointer([...place, 'parameters', name === from ? to : name, 'resets', index]), value: to });
    }
    for (const { path, references } of walkContent(page.content)) {
      for (const bind of references.binds) {
        if (bind.name === from) patch.push({ op: 'replace', path: toPointer([...place, ...path, ...bind.path]), value: to });
      }
      for (const { path: below, link } of references.links) {
        // What is kept is named as both pages name it: a link to another page sends it by the other's name from now on.
        const index = Array.isArray(link.keep) && link.page === pageName ? link.keep.indexOf(from) : -1;
        if (index !== -1) patch.push({ op: 'replace', path: toPointer([...place, ...path, ...below, 'keep', index]), value: to });
      }
    }
    for (const [index, { set }] of (page.arrival ?? []).entries()) {
      const at = [...place, 'arrival', index, 'set'];
      if (Object.hasOwn(set ?? {}, from)) patch.push({ op: 'move', from: toPointer([...at, from]), path: toPointer([...at, to]) });
    }
    // Expressions last: a place that has moved is named as it is by then.
    for (const key of ['title', 'admit', 'rows', 'arrival', 'content'] as const) {
      for (const found of textsIn(page[key], [...place, key])) renameText(patch, found, from, to);
    }
    for (const { place: at, values, boxes } of waysIn(definition).filter((way) => way.page === pageName)) {
      if (Object.hasOwn(values ?? {}, from))
        patch.push({ op: 'move', from: toPointer([...at, 'values', from]), path: toPointer([...at, 'values', to]) });
      const index = boxes?.indexOf(from) ?? -1;
      if (index !== -1) patch.push({ op: 'replace', path: toPointer([...at, 'boxes', index]), value: to });
    }
    return patch;
  },
);

function renameInTemplate(template: string, from: string, to: string): string {
  return template.replaceAll(/\{[^{}]*\}/g, (part) => part.replaceAll(/[A-Za-z][A-Za-z0-9_-]*/g, (name) => (name === from ? to : name)));
}

/** Renames `param.from`, `record.from` and `label.from` where they stand in a condition or in the braces of a text. */
function renameText(patch: PatchOperation[], found: FoundText, from: string, to: string): void {
  if (!mayHoldExpressions(found)) return;
  const { place, text } = found;
  const renamed = text.replaceAll(/\b((?:param|record|label)\.\??)([A-Za-z_]\w*)/g, (whole, scope: string, name: string) =>
    name === from ? scope + to : whole,
  );
  if (renamed === text) return;
  // What a rule for arrivals sets has moved before.
  const moved = place.map((part, index) => (part === from && place[index - 1] === 'set' && place[2] === 'arrival' ? to : part));
  patch.push({ op: 'replace', path: toPointer(moved), value: renamed });
}
