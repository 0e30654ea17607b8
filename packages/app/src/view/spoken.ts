/** A name from the app file as words: “lastSeen” and “last-seen” become “Last seen”. */
export function spoken(name: string): string {
  const words = name
    .replaceAll(/[-_]+/g, ' ')
    .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}
