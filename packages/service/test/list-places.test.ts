import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ListPlaces } from '../src/store/typeorm/list-places.ts';
import { often } from '../../../test/support/often.ts';

it('gives the nearest place that is not after a page, in whichever order pages are read', () => {
  const offsets = fc.array(fc.nat(60), { maxLength: 40 });
  fc.assert(
    fc.property(offsets, fc.nat(70), (added, asked) => {
      const places = new ListPlaces();
      for (const offset of added) places.add({ offset, values: [offset] });
      const nearest = Math.max(...added.filter((offset) => offset <= asked));
      expect(places.before(asked)).toEqual(nearest < 0 ? undefined : { offset: nearest, values: [nearest] });
    }),
    { numRuns: often(200) },
  );
});
