import { toPointer, withArticle } from '@pallmist/address/declare';
import { suggest } from '@pallmist/address/explain';
import { type CheckContext, type Place, report } from '../../definition/check/context.ts';
import { fixName } from '../../definition/check/fix-name.ts';

/** A field of a collection is there, or a field of the record that it refers to, as in house.name. */
export function checkFieldPath(context: CheckContext, place: Place, path: string, collection: string | undefined): void {
  const [field = '', ...further] = path.split('.');
  const inner = further.length === 0 ? undefined : further.join('.');
  const fields = context.definition.collections?.[collection ?? '']?.fields ?? {};
  const declared = fields[field];
  if (inner !== undefined && declared !== undefined) {
    if (declared.type === 'record') checkFieldPath(context, place, inner, declared.of);
    else
      report(context, place, {
        code: 'unknown-field',
        message: `“${field}” is ${withArticle(declared.type)} and has no field “${inner}”.`,
        hint: `Write “${field}” alone.`,
        fix: [{ op: 'replace', path: toPointer(place), value: field }],
      });
    return;
  }
  const names = Object.keys(fields);
  if (collection === undefined || names.length === 0 || names.includes(field)) return;
  report(context, place, {
    code: 'unknown-field',
    message: `The collection “${collection}” has no field “${field}”.`,
    hint: suggest(field, names),
    ...fixName(place, field, names),
  });
}
