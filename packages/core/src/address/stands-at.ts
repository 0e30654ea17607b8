/** Whether a text stands at a place in another. For the few characters of a name this is quicker than `startsWith`. */
export function standsAt(text: string, at: number, name: string): boolean {
  for (let i = name.length - 1; i >= 0; i--) {
    if (text.charCodeAt(at + i) !== name.charCodeAt(i)) return false;
  }
  return true;
}
