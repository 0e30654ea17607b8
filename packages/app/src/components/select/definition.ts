import { componentKind } from '../component-kind.ts';
import { nothingElse } from '../kind.ts';
import { oneOfSeveral, referToOneOfSeveral } from '../shared/one-of-several.ts';

export const select = componentKind({
  name: 'select',
  label: 'Select',
  sentence: 'Chooses one value from a list that opens.',
  example: { bind: 'house', label: 'House', anyLabel: 'All houses' },
  fields: oneOfSeveral,
  refersTo: referToOneOfSeveral,
  check: nothingElse,
});
