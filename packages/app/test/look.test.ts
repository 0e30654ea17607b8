import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lookStyle, lookVersion } from '../src/view/look.ts';
import { typefaceNames, typefaces } from '../src/definition/typefaces.ts';

/** Contrast ratio of two colours (WCAG 2.2), by its definition. */
function contrast(one: string, other: string): number {
  const luminance = (colour: string) =>
    [0.2126, 0.7152, 0.0722].reduce((sum, weight, index) => {
      const channel = Number.parseInt(colour.slice(1 + 2 * index, 3 + 2 * index), 16) / 255;
      return sum + weight * (channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4);
    }, 0);
  const [dark = 0, light = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (light + 0.05) / (dark + 0.05);
}

it('moves any colour until links and the words on buttons can be read, in light and in dark', () => {
  const colour = fc.integer({ min: 0, max: 0xffffff }).map((number) => `#${number.toString(16).padStart(6, '0')}`);
  fc.assert(
    fc.property(colour, (accent) => {
      const style = lookStyle({ accent });
      const pair = (token: string) => new RegExp(`--${token}: light-dark\\((#\\w{6}), (#\\w{6})\\)`).exec(style)?.slice(1) ?? [];
      const [[light = '', dark = ''], [onLight = '', onDark = '']] = [pair('leaf'), pair('on-leaf')];
      for (const [one, other] of [
        [light, '#ffffff'],
        [dark, '#1c2425'],
        [light, onLight],
        [dark, onDark],
      ] as const)
        expect([accent, contrast(one, other) >= 4.5]).toEqual([accent, true]);
    }),
  );
});

it('sets headings and all else in typefaces of their own, and each look has a version of its own', () => {
  expect(lookStyle({ text: 'slab', body: 'round' })).toBe(
    `:root {\n  --text: ${typefaces.slab.family};\n  --plain: ${typefaces.round.family};\n}\n`,
  );
  const looks = typefaceNames.flatMap((name) => [{ text: name }, { body: name }, { text: name, body: name, corners: 'square' as const }]);
  expect(new Set(looks.map(lookVersion)).size).toBe(looks.length);
});
