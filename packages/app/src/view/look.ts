import type { LookDefinition } from '../definition/app-definition.ts';
import { typefaces } from '../definition/typefaces.ts';

/** What a colour is read against, in light and in dark: the sheet of the hosted pages. */
const sheets = { light: '#ffffff', dark: '#1c2425' };
/** Least contrast of text (WCAG 2.2, 1.4.3). */
const leastContrast = 4.5;

/** The style sheet of an app’s look: values for the design tokens of the hosted pages. Colours are moved until they can be read. */
export function lookStyle({ accent, text, body, corners }: LookDefinition): string {
  const tokens: string[] = [];
  if (accent !== undefined) {
    const light = readableOn(accent, sheets.light, '#000000');
    const dark = readableOn(accent, sheets.dark, '#ffffff');
    tokens.push(
      `--leaf: light-dark(${light}, ${dark});`,
      `--leaf-soft: light-dark(${mix(light, '#ffffff', 0.88)}, ${mix(dark, '#141a1b', 0.78)});`,
      `--on-leaf: light-dark(${onColour(light)}, ${onColour(dark)});`,
    );
  }
  if (text !== undefined) tokens.push(`--text: ${typefaces[text].family};`);
  if (body !== undefined) tokens.push(`--plain: ${typefaces[body].family};`);
  if (corners === 'square') tokens.push('--round: 0;');
  return `:root {\n${tokens.map((token) => `  ${token}\n`).join('')}}\n`;
}

/** A short text that differs for each look. It stands in the URL of the style sheet, so that caches never serve an old look. */
export const lookVersion = ({ accent, text, body, corners }: LookDefinition): string =>
  [accent?.slice(1).toLowerCase(), text, body && `body-${body}`, corners].filter((part) => part !== undefined).join('-');

/** The colour, moved towards another until it can be read on a ground. */
function readableOn(colour: string, ground: string, towards: string): string {
  for (let share = 0; share < 1; share += 0.05) {
    const moved = mix(colour, towards, share);
    if (contrast(moved, ground) >= leastContrast) return moved;
  }
  return towards;
}

const onColour = (ground: string) => (contrast('#ffffff', ground) >= leastContrast ? '#ffffff' : '#0d1513');

const channels = (colour: string) => [1, 3, 5].map((start) => Number.parseInt(colour.slice(start, start + 2), 16));

function mix(colour: string, other: string, share: number): string {
  const others = channels(other);
  const mixed = channels(colour).map((channel, index) => Math.round(channel * (1 - share) + (others[index] ?? 0) * share));
  return `#${mixed.map((channel) => channel.toString(16).padStart(2, '0')).join('')}`;
}

/** Contrast ratio (WCAG 2.2), 1 to 21. */
function contrast(one: string, other: string): number {
  const [darker = 0, lighter = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (lighter + 0.05) / (darker + 0.05);
}

function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = channels(colour)
    .map((channel) => channel / 255)
    .map((channel) => (channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4));
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
