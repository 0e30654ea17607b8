import { createHash } from 'node:crypto';
import { chmodSync, copyFileSync, createReadStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { timestamp, type WallClock } from '../clock.ts';
import { StartError } from '../start-error.ts';
import { SqliteDriver } from '../store/sqlite/driver.ts';
import { copyInto } from '../store/sqlite/statements.ts';
import { version } from '../version.ts';
import { writePrivately } from '../write-privately.ts';
import { databaseFile, keysFile, manifestFile, tokenFile } from './data-files.ts';

/** What is in a backup. */
export interface BackupManifest {
  pallmist: string;
  /** RFC 3339, UTC. */
  madeAt: string;
  /** Bytes and SHA-256 (hexadecimal) of each file. */
  files: Record<string, { bytes: number; sha256: string }>;
}

/**
 * Copies everything that a service keeps into a new directory: the database as it is at one moment, the keys and the token.
 * The service can run meanwhile. The backup is written beside its place and put there when it is whole.
 * @param data the data directory
 * @throws StartError where there is nothing to copy, or the place is taken
 */
export async function backUp(data: string, to: string, clock: WallClock): Promise<BackupManifest> {
  const database = join(data, databaseFile);
  if (!existsSync(database))
    throw new StartError(`There is no database in ${data}. Set PALLMIST_DATA to the data directory of the service, or give --data.`);
  if (existsSync(to) && readdirSync(to).length > 0)
    throw new StartError(`${to} is there already and is not empty. Name a new directory for the backup.`);
  const beside = `${resolve(to)}.partial`;
  rmSync(beside, { recursive: true, force: true });
  try {
    mkdirSync(beside, { recursive: true, mode: 0o700 });
    const reader = new SqliteDriver(database);
    try {
      copyInto(reader, join(beside, databaseFile));
    } finally {
      reader.close();
    }
    // The keys after the database: no address in it was sealed by a key that is missing here.
    for (const name of [keysFile, tokenFile]) if (existsSync(join(data, name))) copyFileSync(join(data, name), join(beside, name));
    const manifest: BackupManifest = { pallmist: version, madeAt: timestamp(clock), files: {} };
    for (const name of readdirSync(beside)) {
      chmodSync(join(beside, name), 0o600);
      manifest.files[name] = { bytes: statSync(join(beside, name)).size, sha256: await hashOf(join(beside, name)) };
    }
    writePrivately(join(beside, manifestFile), JSON.stringify(manifest, null, 2) + '\n');
    rmSync(to, { recursive: true, force: true });
    renameSync(beside, to);
    return manifest;
  } catch (error) {
    rmSync(beside, { recursive: true, force: true });
    if (error instanceof StartError) throw error;
    throw new StartError(`The backup could not be written to ${to}: ${error instanceof Error ? error.message : String(error)}.`);
  }
}

/** SHA-256 of a file, in hexadecimal. */
export async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}
