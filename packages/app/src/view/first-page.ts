/** The page whose address is that of the app alone; undefined where there is none. */
export const firstPageOf = (pages: Readonly<Record<string, { address: string }>>): string | undefined =>
  Object.keys(pages).find((name) => /^\/(?:$|\{[?/])/.test(pages[name]?.address ?? ''));
