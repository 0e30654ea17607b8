import { createReadStream, statSync } from 'node:fs';
import { basename } from 'node:path';
import { CommandError, exit } from './exit.ts';

/** Milliseconds between two lines of progress. */
const every = 200;

/** Reads a file as it is sent, and shows on the terminal how far that is. The service takes it as fast as it keeps it. */
export async function* readWithProgress(file: string): AsyncGenerator<Uint8Array> {
  let size: number;
  try {
    ({ size } = statSync(file));
  } catch (error) {
    const reason = (error as NodeJS.ErrnoException).code === 'ENOENT' ? 'there is no such file' : (error as Error).message;
    throw new CommandError(exit.usage, `${file} cannot be read: ${reason}.`);
  }
  let read = 0;
  let shown = 0;
  const { isTTY } = process.stderr;
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) {
    yield chunk;
    read += chunk.length;
    if (!isTTY || performance.now() - shown < every) continue;
    shown = performance.now();
    process.stderr.write(`\r${basename(file)}: ${String(Math.floor((100 * read) / Math.max(1, size)))} % `);
  }
  if (isTTY) process.stderr.write(`\r${basename(file)}: sent${' '.repeat(10)}\n`);
}
