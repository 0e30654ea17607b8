import { conditionsOf } from '../operators.ts';
import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import { throughBlocks } from '../blocks/through-blocks.ts';
import type { AppDefinition } from '../app-definition.ts';
import { walkContent } from '../../components/walk-content.ts';
import { declaredParameters } from '../declared-parameters.ts';
import { formerNames } from './keep-former.ts';
import { mayHoldExpressions, textsIn, waysIn, type Place } from './places.ts';

/**
 * The JSON Patch that renames a value of a choices list everywhere: in the list, in defaults and samples, in the views of
 * tabs, in links and conditions, and where an expression compares a parameter of the list with it.
 * @param keepOld the old value still works in addresses, and records that hold it get the new one at publishing
 * @returns an empty patch when there is no such value or the new one is taken
 */
export const renameChoice = throughBlocks(
  (definition: AppDefinition, list: string, from: string, to: string, keepOld = true): PatchOperation[] => {
    const values = definition.choices?.[list];
    const present = values?.[from];
    if (values === undefined || present === undefined || from === to || Object.hasOwn(values, to)) return [];
    const { label, formerValues: former } = typeof present === 'string' ? { label: present, formerValues: undefined } : present;
    const names = keepOld ? formerNames(former, from, to) : former;
    const at = ['choices', list];
    const patch: PatchOperation[] = [{ op: 'move', from: toPointer([...at, from]), path: toPointer([...at, to]) }];
    if (names !== undefined && typeof present === 'string')
      patch.push({ op: 'replace', path: toPointer([...at, to]), value: { label, formerValues: names } });
    else if (names !== undefined)
      patch.push({ op: former === undefined ? 'add' : 'replace', path: toPointer([...at, to, 'formerValues']), value: names });
    const replace = (place: Place, value: unknown) => patch.push({ op: 'replace', path: toPointer(place), value });

    const ofList = (declared: { type: string; of?: string | undefined } | undefined) => declared?.type === 'choice' && declared.of === list;
    for (const { place, declaration } of declaredParameters(definition)) {
      for (const key of ['default', 'sample'] as const) {
        const given = declaration[key];
        if (ofList(declaration) && given === from) replace([...place, key], to);
        if (ofList(declaration.items) && Array.isArray(given) && given.includes(from))
          replace(
            [...place, key],
            given.map((item) => (item === from ? to : (item as unknown))),
          );
      }
    }
    const declared = (page: string, name: string) => definition.pages[page]?.parameters?.[name] ?? definition.parameters?.[name];
    for (const [pageName, page] of Object.entries(definition.pages)) {
      const place = ['pages', pageName];
      for (const { component, path } of walkContent(page.content)) {
        const { bind, panes } = component;
        if (typeof bind === 'string' && ofList(declared(pageName, bind)) && Object.hasOwn(panes ?? {}, from))
          patch.push({
            op: 'move',
            from: toPointer([...place, ...path, 'panes', from]),
            path: toPointer([...place, ...path, 'panes', to]),
          });
      }
      for (const [readName, read] of Object.entries(page.rows ?? {})) {
        const fields = definition.collections?.[read.from]?.fields ?? {};
        for (const { key, index, condition } of conditionsOf(read)) {
          if (ofList(fields[condition.field]) && condition.equals === from) replace([...place, 'rows', readName, key, index, 'equals'], to);
        }
      }
      for (const [index, { set }] of (page.arrival ?? []).entries())
        for (const [name, value] of Object.entries(set ?? {}))
          if (value === from && ofList(declared(pageName, name))) replace([...place, 'arrival', index, 'set', name], to);
    }
    for (const { place, page, values: given } of waysIn(definition))
      for (const [name, value] of Object.entries(given ?? {}))
        if (value === from && ofList(declared(page, name))) replace([...place, 'values', name], to);
    renameInExpressions(definition, from, to, ofList, declared, replace);
    return patch;
  },
);

/** Comparisons of a parameter, or of a field, of the list with the value. */
function renameInExpressions(
  definition: AppDefinition,
  from: string,
  to: string,
  ofList: (declared: { type: string; of?: string | undefined } | undefined) => boolean,
  declared: (page: string, name: string) => { type: string; of?: string | undefined } | undefined,
  replace: (place: Place, value: unknown) => void,
): void {
  const isField = (name: string) => Object.values(definition.collections ?? {}).some(({ fields }) => ofList(fields[name]));
  for (const [page, { parameters: _, ...rest }] of Object.entries(definition.pages)) {
    for (const found of textsIn(rest, ['pages', page])) {
      if (!mayHoldExpressions(found)) continue;
      const renamed = found.text.replaceAll(
        /\b(param|record\.\w+|row|saved)\.(\w+)(\s*[!=]=\s*)(["'])([^"']*)\4/g,
        (whole, root: string, name: string, operator: string, quote: string, value: string) => {
          const isOfList = root === 'param' ? ofList(declared(page, name)) : isField(name);
          return value === from && isOfList ? `${root}.${name}${operator}${quote}${to}${quote}` : whole;
        },
      );
      if (renamed !== found.text) replace(found.place, renamed);
    }
  }
}
