/** Writes a result: as JSON for programs, as lines for people. */
export function print(json: boolean | undefined, data: unknown, lines: () => readonly string[]): void {
  process.stdout.write(json === true ? JSON.stringify(data, null, 2) + '\n' : lines().join('\n') + '\n');
}

/** Lays rows out in columns. */
export function columns(rows: readonly (readonly string[])[]): string[] {
  const widths: number[] = [];
  for (const row of rows) for (const [index, cell] of row.entries()) widths[index] = Math.max(widths[index] ?? 0, [...cell].length);
  return rows.map((row) =>
    row
      .map((cell, index) => cell + ' '.repeat((widths[index] ?? 0) - [...cell].length))
      .join('  ')
      .trimEnd(),
  );
}
