/** A typeface of pages: fonts that systems have, so that nothing is loaded from anywhere. */
interface Typeface {
  label: string;
  /** A font-family list of CSS. */
  family: string;
}

/** The typefaces that an app can choose from, by the word in its file. */
export const typefaces = {
  book: { label: 'with serifs', family: "'Iowan Old Style', 'Palatino Linotype', 'Book Antiqua', Georgia, serif" },
  plain: { label: 'without serifs', family: "'Seravek', 'Gill Sans Nova', Ubuntu, Calibri, 'DejaVu Sans', source-sans-pro, sans-serif" },
  strict: { label: 'strict, without serifs', family: "'Helvetica Neue', Inter, Roboto, Arimo, Arial, 'Liberation Sans', sans-serif" },
  round: {
    label: 'rounded',
    family: "ui-rounded, 'Hiragino Maru Gothic ProN', Quicksand, Comfortaa, Manjari, 'Arial Rounded MT Bold', Calibri, sans-serif",
  },
  slab: { label: 'with slab serifs', family: "Rockwell, 'Rockwell Nova', 'Roboto Slab', 'DejaVu Serif', 'Sitka Small', serif" },
  typewriter: { label: 'as typed', family: "'Nimbus Mono PS', 'Courier New', 'Liberation Mono', monospace" },
} as const satisfies Record<string, Typeface>;

export type TypefaceName = keyof typeof typefaces;
export const typefaceNames = Object.keys(typefaces) as [TypefaceName, ...TypefaceName[]];
