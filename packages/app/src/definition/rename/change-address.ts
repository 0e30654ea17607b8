import { formerTemplate, type PatchOperation, toPointer } from '@pallmist/address/declare';
import type { AppDefinition } from '../app-definition.ts';

/**
 * The JSON Patch that gives a page another address template.
 * @param keepOld the old address goes on to lead to the page
 * @returns an empty patch when there is no such page or it has the address already
 */
export function changeAddress(definition: AppDefinition, page: string, address: string, keepOld = true): PatchOperation[] {
  const present = definition.pages[page];
  if (present === undefined || present.address === address) return [];
  const patch: PatchOperation[] = [{ op: 'replace', path: toPointer(['pages', page, 'address']), value: address }];
  // Only the path is what an address leads by.
  const pathOf = (template: string) => template.replace(/\{\?[^{}]*\}$/, '');
  const { formerAddresses } = present;
  const others = (formerAddresses ?? []).filter((one) => pathOf(formerTemplate(one)) !== pathOf(address));
  const keepsPath = pathOf(present.address) === pathOf(address);
  const former = keepOld && !keepsPath ? [...others, present.address] : others;
  if (former.length > 0 || formerAddresses !== undefined)
    patch.push({
      op: formerAddresses === undefined ? 'add' : 'replace',
      path: toPointer(['pages', page, 'formerAddresses']),
      value: former,
    });
  return patch;
}
