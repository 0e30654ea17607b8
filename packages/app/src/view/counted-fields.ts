import { walkContent } from '../components/walk-content.ts';
import type { PageDefinition } from '../definition/app-definition.ts';

/** The fields by whose values the rows of each read of a page are counted, by the names of the reads. */
export function countedFields(page: PageDefinition): Record<string, string[]> {
  const counted: Record<string, Set<string>> = {};
  for (const { references } of walkContent(page.content))
    for (const { rows, field } of references.counted) (counted[rows] ??= new Set()).add(field);
  return Object.fromEntries(Object.entries(counted).map(([rows, fields]) => [rows, [...fields]]));
}
