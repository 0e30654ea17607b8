import { parseTemplate, type Problem, toPointer } from '@pallmist/address/declare';
import type { AppDefinition } from '../definition/app-definition.ts';

/**
 * Points out lists that stand in addresses otherwise than in the edition before: joined by commas where they were repeated,
 * or the other way round. An item may hold a comma, so that an address of before can be read as another list.
 */
export function listFormChanges(before: Pick<AppDefinition, 'pages'>, after: Pick<AppDefinition, 'pages'>): Problem[] {
  const problems: Problem[] = [];
  for (const [name, page] of Object.entries(after.pages)) {
    const former = [name, ...(page.formerNames ?? [])].map((one) => before.pages[one]).find((one) => one !== undefined);
    if (former === undefined) continue;
    const [was, is] = [repeatedIn(former.address), repeatedIn(page.address)];
    for (const [parameter, declaration] of Object.entries(page.parameters ?? {})) {
      const then = [parameter, ...(declaration.formerNames ?? [])].find((one) => former.parameters?.[one]?.type === 'list');
      if (declaration.type !== 'list' || then === undefined || was.has(then) === is.has(parameter)) continue;
      const items = declaration.items?.type;
      const takesCommas = items === 'text' || items === 'record' || items === 'choice';
      const repeats = is.has(parameter);
      if (!repeats || !takesCommas) continue;
      problems.push({
        code: 'list-form-changed',
        severity: 'warning',
        message: `Addresses of the published edition join the items of “${parameter}” with commas; now they repeat it, and “a,b” is read as one item.`,
        hint: `Take the “*” out of the address of “${name}”, or give the repeated list another name.`,
        pointer: toPointer(['pages', name, 'address']),
        parameter,
      });
    }
  }
  return problems;
}

const repeatedIn = (address: string): ReadonlySet<string> => parseTemplate(address).template.repeated;
