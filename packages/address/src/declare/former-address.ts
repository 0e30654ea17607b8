import type { FormerAddress } from '../pages/compiled-app.ts';

/** The template of a former address, with or without values that it implies. */
export const formerTemplate = (former: FormerAddress): string => (typeof former === 'string' ? former : former.address);

/** The same former address with another template. */
export const withTemplate = (former: FormerAddress, address: string): FormerAddress =>
  typeof former === 'string' ? address : { ...former, address };
