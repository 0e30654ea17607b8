import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';
import { oneOfSeveral, referToOneOfSeveral } from '../shared/one-of-several.ts';

export const radio = componentKind({
  name: 'radio',
  label: 'Radio buttons',
  sentence: 'Chooses one value; all options are visible.',
  example: { bind: 'health', label: 'Health' },
  fields: oneOfSeveral,
  refersTo: referToOneOfSeveral,
  check: nothingElse,
});
