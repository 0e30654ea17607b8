import { copyFileSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { z } from 'zod';
import { timestamp, type WallClock } from '../clock.ts';
import { lockDirectory } from '../directory-lock.ts';
import { StartError } from '../start-error.ts';
import { SqliteDriver } from '../store/sqlite/driver.ts';
import { findDamage } from '../store/sqlite/statements.ts';
import { hashOf, type BackupManifest } from './backup.ts';
import { databaseFile, keysFile, manifestFile, tokenFile } from './data-files.ts';

const manifestShape = z.object({
  pallmist: z.string(),
  madeAt: z.string(),
  files: z.record(z.enum([databaseFile, keysFile, tokenFile]), z.object({ bytes: z.number(), sha256: z.string() }).optional()),
});

/** What a restore has done. */
export interface Restored {
  madeAt: string;
  /** Where what was there before is now; undefined where nothing was. */
  before: string | undefined;
}

/**
 * Puts a backup in the place of a data directory. The service must not run. Every file is checked first; what was there
 * before is kept beside.
 * @param replace also where the directory has a database
 * @throws StartError where the backup is damaged, the directory is in use, or it would be replaced without being asked
 */
export async function restore(from: string, data: string, { replace, clock }: { replace: boolean; clock: WallClock }): Promise<Restored> {
  const manifest = readManifest(from);
  for (const [name, { bytes, sha256 }] of Object.entries(manifest.files)) {
    const file = join(from, name);
    if (!existsSync(file)) throw new StartError(`The backup ${from} is not whole: ${name} is missing.`);
    if ((await hashOf(file)) !== sha256)
      throw new StartError(
        `${name} in ${from} is damaged: it is not the file of ${String(bytes)} bytes that was written. Use another backup.`,
      );
  }
  const damage = damageOf(join(from, databaseFile));
  if (damage !== undefined) throw new StartError(`The database in ${from} is damaged: ${damage}. Use another backup.`);
  const unlock = lockDirectory(data);
  try {
    const present = readdirSync(data).filter(
      (name) => !name.startsWith('service.lock') && !name.startsWith('before-restore-') && !name.endsWith(arrivingEnd),
    );
    if (present.includes(databaseFile) && !replace)
      throw new StartError(`${data} has a database already. With --replace it is kept beside, and the backup takes its place.`);
    // The new files are here, whole and checked, before anything that is here is touched.
    const arriving = await copyIn(from, data, manifest);
    const before = present.length === 0 ? undefined : join(data, `before-restore-${timestamp(clock).replaceAll(/[:.]/g, '-')}`);
    if (before !== undefined) {
      mkdirSync(before, { mode: 0o700 });
      for (const name of present) renameSync(join(data, name), join(before, basename(name)));
    }
    // The database last: until it is there, the directory is empty for a service.
    for (const name of arriving) renameSync(join(data, name + arrivingEnd), join(data, name));
    return { madeAt: manifest.madeAt, before };
  } finally {
    unlock();
  }
}

/** What the name of a file ends in while it is copied. */
const arrivingEnd = '.new';

/** Copies the files of a backup beside those that are there, and checks the copies. @returns their names, the database last */
async function copyIn(from: string, data: string, { files }: BackupManifest): Promise<string[]> {
  const names = [keysFile, tokenFile, databaseFile].filter((name) => Object.hasOwn(files, name));
  const copies = names.map((name) => join(data, name + arrivingEnd));
  try {
    for (const [index, name] of names.entries()) {
      const copy = copies[index] ?? '';
      copyFileSync(join(from, name), copy);
      if ((await hashOf(copy)) !== (await hashOf(join(from, name)))) throw new Error(`the copy of ${name} is not whole`);
    }
    return names;
  } catch (error) {
    for (const copy of copies) rmSync(copy, { force: true });
    const reason = error instanceof Error ? error.message : String(error);
    throw new StartError(`The backup cannot be copied into ${data}: ${reason}. Nothing was changed. Make room, then try again.`);
  }
}

function readManifest(from: string): BackupManifest {
  try {
    const { files, ...rest } = manifestShape.parse(JSON.parse(readFileSync(join(from, manifestFile), 'utf8')));
    if (files[databaseFile] === undefined) throw new Error('no database');
    return { ...rest, files: files as BackupManifest['files'] };
  } catch {
    throw new StartError(`${from} is no backup of Pallmist: ${manifestFile} is missing, or is not what “pallmist backup” writes.`);
  }
}

/** What is wrong with a database file; undefined where nothing is. */
export function damageOf(file: string): string | undefined {
  let database: SqliteDriver | undefined;
  try {
    database = new SqliteDriver(file);
    return findDamage(database);
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  } finally {
    database?.close();
  }
}
