import { createReadStream, statSync } from 'node:fs';
import { basename } from 'node:path';
import { CommandError, exit } from './exit.ts';

/** Milliseconds between two lines of progress. */
const every = 200;

/**
 * Reads a file as it is sent, and shows on the terminal how far that is. The service takes it as fast as it keeps it.
 * @param file its name; “-” for standard input, whose length nobody knows
 */
export async function* readWithProgress(file: string): AsyncGenerator<Uint8Array> {
  if (file === '-') {
    yield* process.stdin as AsyncIterable<Buffer>;
    return;
  }
  let size: number;
  try {
    ({ size } = statSync(file));
  } catch (error) {
    const reason = (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new CommandError(exit.usage, `${file} cannot be read: ${reason}.`);
  }
  let read = 0;
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) {
    yield chunk;
    read += chunk.length;
    showProgress(basename(file), read, size);
  }
  endProgress(basename(file), 'sent');
}

let shown = 0;

/** Shows on the terminal how far something is, now and then. */
export function showProgress(what: string, done: number, total: number): void {
  if (!process.stderr.isTTY || performance.now() - shown < every) return;
  shown = performance.now();
  process.stderr.write(`\r${what}: ${String(Math.floor((100 * done) / Math.max(1, total)))} % `);
}

export function endProgress(what: string, how: string): void {
  if (process.stderr.isTTY) process.stderr.write(`\r${what}: ${how}${' '.repeat(10)}\n`);
}
