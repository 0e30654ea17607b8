import { boolean, choice, integer, list, page, text } from '@pallmist/address';
import { packed } from '@pallmist/app/packed';
import { isDraft, palette, type Draft } from './draft.ts';
import { patterns } from './patterns.ts';

/** What the loom keeps in the address. The chosen colour is nobody else's business: it is not shared. */
export const loomPart = page('{?draft,colour}', {
  draft: packed(isDraft, { default: patterns['Straight twill'] as Draft }),
  colour: integer({ min: 0, max: palette.length - 1, default: 2, step: false, share: false }),
});

/** What the gallery keeps there: whether it is open, and what it shows. */
export const galleryPart = page('{?gallery,q,shafts*}', {
  gallery: boolean({ default: false, share: false }),
  q: text({ maxLength: 40, blank: 'absent', step: false, share: false }),
  shafts: list(choice(['2', '4', '8']), { unique: true, step: false, share: false }),
});
