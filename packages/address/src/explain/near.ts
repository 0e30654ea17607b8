/** The name among `among` that was probably meant by `wrong`: same but for case, or at most two slips away. */
export function nearest(wrong: string, among: Iterable<string>): string | undefined {
  if (wrong.length > 80) return undefined;
  const names = [...among];
  // The beginning of a name is as good as a slip, if it is long enough to be the beginning of one only.
  const begun = wrong.length >= 3 ? names.filter((name) => name.toLowerCase().startsWith(wrong.toLowerCase())) : [];
  if (begun.length === 1) return begun[0];
  let best: string | undefined;
  let bestDistance = Math.min(2, Math.floor(wrong.length / 2)) + 1;
  for (const name of names) {
    if (name.length > 80) continue;
    const distance = name.toLowerCase() === wrong.toLowerCase() ? 0 : slips(wrong, name, bestDistance);
    if (distance < bestDistance) {
      best = name;
      bestDistance = distance;
    }
  }
  return best;
}

/** Says the nearest name as half a sentence, or what there is when nothing is near. */
export function suggest(wrong: string, names: Iterable<string>): string {
  const all = [...names];
  const near = nearest(wrong, all);
  if (near !== undefined) return `Did you mean “${near}”?`;
  if (all.length === 0) return 'There are none yet.';
  const shown = all.slice(0, 8).join(', ');
  return `There is: ${shown}${all.length > 8 ? `, and ${String(all.length - 8)} more` : ''}.`;
}

/** Levenshtein distance with neighbours exchanged counted as one slip, given up at `limit`. */
function slips(a: string, b: string, limit: number): number {
  if (Math.abs(a.length - b.length) >= limit) return limit;
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, index) => index);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let cost = Math.min((last[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, (last[j - 1] ?? 0) + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) {
        cost = Math.min(cost, (beforeLast[j - 2] ?? 0) + 1);
      }
      row.push(cost);
    }
    beforeLast = last;
    last = row;
  }
  return last[b.length] ?? limit;
}
