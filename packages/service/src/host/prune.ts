import type { AppDefinition, PageData, RecordData } from '@pallmist/core';

/**
 * Takes out of loaded records what the page does not mention, so that no browser gets more than its page shows.
 * Keys and titles stay: links and references are made from them.
 */
export function pruneData(data: PageData, definition: AppDefinition, named: ReadonlySet<string>): void {
  const kept = new Set(named);
  for (const { key, title } of Object.values(definition.collections ?? {})) {
    kept.add(key);
    if (title !== undefined) kept.add(title);
  }
  const prune = (record: RecordData): RecordData =>
    Object.fromEntries(
      Object.entries(record)
        .filter(([name]) => kept.has(name))
        .map(([name, value]) => [name, typeof value === 'object' ? prune(value) : value]),
    );
  for (const [name, record] of Object.entries(data.records)) data.records[name] = prune(record);
  for (const read of Object.values(data.reads)) read.rows = read.rows.map(prune);
}
