import { type PatchOperation, toPointer } from '@pallmist/address/declare';
import { throughBlocks } from '../blocks/through-blocks.ts';
import type { AppDefinition } from '../app-definition.ts';
import { keepFormer } from './keep-former.ts';
import { mayHoldExpressions, textsIn, waysIn } from './places.ts';

/**
 * The JSON Patch that renames a page everywhere: itself, the links and forms that lead to it, and what asks whether one
 * came from it.
 * @param keepOld the old name still works, in values of the type page and in addresses that were written by it
 * @returns an empty patch when there is no such page or the new name is taken
 */
export const renamePage = throughBlocks((definition: AppDefinition, from: string, to: string, keepOld = true): PatchOperation[] => {
  const page = definition.pages[from];
  if (page === undefined || from === to || Object.hasOwn(definition.pages, to)) return [];
  const patch: PatchOperation[] = [{ op: 'move', from: toPointer(['pages', from]), path: toPointer(['pages', to]) }];
  // A place inside of the page is named as it is by then.
  const moved = (place: (string | number)[]) => (place[0] === 'pages' && place[1] === from ? ['pages', to, ...place.slice(2)] : place);
  if (keepOld) patch.push(...keepFormer(['pages', to, 'formerNames'], page.formerNames, from, to));
  for (const way of waysIn(definition)) {
    if (way.page === from) patch.push({ op: 'replace', path: toPointer(moved([...way.place, 'page'])), value: to });
  }
  if (definition.signIn?.page === from) patch.push({ op: 'replace', path: '/signIn/page', value: to });
  for (const found of textsIn(definition.pages, ['pages'])) {
    if (!mayHoldExpressions(found)) continue;
    const renamed = found.text.replaceAll(
      /(previous\.page\s*[!=]=\s*)(["'])([\w-]+)\2/g,
      (whole, before: string, quote: string, name: string) => (name === from ? `${before}${quote}${to}${quote}` : whole),
    );
    if (renamed !== found.text) patch.push({ op: 'replace', path: toPointer(moved(found.place)), value: renamed });
  }
  return patch;
});
