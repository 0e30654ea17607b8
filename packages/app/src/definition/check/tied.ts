import { suggest } from '@pallmist/address/explain';
import type { AppDefinition } from '../app-definition.ts';
import { report, type CheckContext } from './context.ts';
import { fixName } from './fix-name.ts';

/** Reports ties of record parameters to fields or parameters that there are not, or that hold something else. */
export function checkTies(context: CheckContext): void {
  const { definition } = context;
  for (const [name, page] of Object.entries(definition.pages)) {
    const declared = { ...definition.parameters, ...page.parameters };
    for (const [parameter, { type, of = '', tied }] of Object.entries(page.parameters ?? {})) {
      const fields = type === 'record' ? definition.collections?.[of]?.fields : undefined;
      if (fields === undefined) continue;
      for (const [field, other] of Object.entries(tied ?? {})) {
        const at = ['pages', name, 'parameters', parameter, 'tied', field];
        if (!Object.hasOwn(fields, field))
          report(context, at, {
            code: 'unknown-field',
            message: `The collection “${of}” has no field “${field}”.`,
            hint: suggest(field, Object.keys(fields)),
          });
        else if (other === parameter || !Object.hasOwn(declared, other))
          report(context, at, {
            code: 'undeclared',
            message: `The page has no other parameter “${other}”.`,
            hint: suggest(other, Object.keys(declared)),
            ...fixName(at, other, Object.keys(declared)),
          });
        else if (!fits(fields[field], declared[other]))
          report(context, at, {
            code: 'tie-never-holds',
            message: `“${field}” and “${other}” never have the same value: they are of different kinds.`,
            hint: 'Tie a field to a parameter of the same type, and of the same collection or choices.',
          });
      }
    }
  }
}

type Field = NonNullable<AppDefinition['collections']>[string]['fields'][string] | undefined;
type Declared = NonNullable<AppDefinition['parameters']>[string] | undefined;

/** Whether a field and a parameter can have the same value. */
const fits = (field: Field, parameter: Declared): boolean =>
  field?.type === parameter?.type && (field?.of ?? '') === (parameter?.of ?? '') && parameter?.by === undefined;
