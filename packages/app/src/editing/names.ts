const withoutMarks = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '');

/**
 * A name for the app file, and a segment for an address, made of what people call something: small letters, digits and “-”.
 * @param otherwise what is used where the text has no letter that a name may have
 */
export function slugOf(text: string, otherwise = 'new'): string {
  const plain = withoutMarks(
    text
      .replaceAll(/[{][^{}]*[}]/g, ' ')
      .replaceAll('ß', 'ss')
      .replaceAll('ø', 'o')
      .replaceAll('æ', 'ae')
      .toLowerCase(),
  );
  const slug = plain
    .replaceAll(/[’']/g, '')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^[^a-z]+|-+$/g, '');
  return slug === '' ? otherwise : slug.slice(0, 40).replace(/-+$/, '');
}

/** A name of a parameter, a field or a read: the same without “-”, which expressions would read as a minus. */
export const identifierOf = (text: string, otherwise = 'value'): string =>
  slugOf(text, otherwise).replaceAll(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());

/** The name, or the name with the first number that makes it free: names that differ only by capitals are the same. */
export function freeName(name: string, taken: Iterable<string>, separator = ''): string {
  const names = new Set([...taken].map((one) => one.toLowerCase()));
  let free = name;
  for (let number = 2; names.has(free.toLowerCase()); number++) free = `${name}${separator}${String(number)}`;
  return free;
}
