import { name, text } from '../../definition/schema-parts.ts';
import type { References } from '../references.ts';

/** The keys of components in which one of several is chosen. */
export const oneOfSeveral = {
  bind: name.describe('A choice, record or boolean parameter'),
  label: text,
  anyLabel: text.optional().describe('What stands for no choice; “Any” when left out'),
};

export function referToOneOfSeveral(given: { bind: string; label: string; anyLabel?: string | undefined }, references: References): void {
  references.text(['label'], given.label);
  references.text(['anyLabel'], given.anyLabel);
  references.bind(['bind'], given.bind, ['choice', 'record', 'boolean']);
  references.chosen.push(given.bind);
}
