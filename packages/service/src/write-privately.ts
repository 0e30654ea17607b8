import { closeSync, fsyncSync, openSync, renameSync, writeFileSync } from 'node:fs';

/** Writes a file for this account alone. Written beside and then put in place, so that it is never half of either. */
export function writePrivately(file: string, text: string): void {
  const beside = `${file}.new`;
  writeFileSync(beside, text, { mode: 0o600 });
  const opened = openSync(beside, 'r');
  fsyncSync(opened);
  closeSync(opened);
  renameSync(beside, file);
}
