/** Folds a text for searching and sorting: no capitals, no accents, compatibility forms resolved (NFKD). */
export function fold(text: string): string {
  return text
    .normalize('NFKD')
    .replaceAll(/\p{M}+/gu, '')
    .toLowerCase()
    .replaceAll('ß', 'ss')
    .replaceAll('ø', 'o')
    .replaceAll('ł', 'l')
    .replaceAll('’', "'");
}
