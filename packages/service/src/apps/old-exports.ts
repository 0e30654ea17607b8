import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { WallClock } from '../clock.ts';

/** The folder in the data directory for what was there before records were replaced. */
export const exportsFolder = 'exports';

const day = 86_400_000;

/**
 * Removes exports that are older than a number of days. The name of an export contains its time. Files with other names stay.
 * @returns the names of the files that were removed
 */
export async function removeOldExports(data: string, days: number, clock: WallClock): Promise<string[]> {
  const folder = join(data, exportsFolder);
  const names = await readdir(folder).catch((error: unknown) => {
    // Nothing was ever exported.
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
    throw error;
  });
  const old = names.filter((name) => {
    const [, date = '', hours = '', minutes = '', seconds = ''] = /-(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)-\d{3}Z\.csv$/.exec(name) ?? [];
    return date !== '' && Date.parse(`${date}T${hours}:${minutes}:${seconds}Z`) < clock() - days * day;
  });
  for (const name of old) await rm(join(folder, name), { force: true });
  return old;
}
