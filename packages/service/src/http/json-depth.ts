/** How deep lists and objects stand in each other in a JSON text (RFC 8259), well-formed or not. Takes linear time. */
export function depthOf(text: string): number {
  let [depth, deepest] = [0, 0];
  let inText = false;
  for (let at = 0; at < text.length; at++) {
    const sign = text.charCodeAt(at);
    if (inText) {
      if (sign === 0x5c) at++;
      else if (sign === 0x22) inText = false;
    } else if (sign === 0x22) inText = true;
    else if (sign === 0x5b || sign === 0x7b) deepest = Math.max(deepest, ++depth);
    else if (sign === 0x5d || sign === 0x7d) depth--;
  }
  return deepest;
}
