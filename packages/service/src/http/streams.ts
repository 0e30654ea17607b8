import type { Readable, Writable } from 'node:stream';

// A stream that fails while nobody hears its `error` ends the process, and one may fail twice, or after its reader has gone.
// So each stream that a request brings forth is heard from its beginning to its end.

/** Hears the errors of a stream for as long as it is there; whoever works with it learns of them by its end. */
export function hearErrors<Stream extends NodeJS.EventEmitter>(stream: Stream): Stream {
  return stream.on('error', () => undefined);
}

/**
 * Writes chunks into a parser as fast as it takes them, and ends it.
 * @param goesOn asked with each chunk; false ends it early
 * @returns whether the parser has taken all and come to its end without a failure
 * @throws what the chunks throw
 */
export async function feed(
  parser: Writable,
  chunks: AsyncIterable<Buffer>,
  goesOn: (chunk: Buffer) => boolean = () => true,
): Promise<boolean> {
  const state = { failed: false, wake: () => {} };
  parser.on('error', () => {
    state.failed = true;
    state.wake();
  });
  for (const event of ['drain', 'close'] as const)
    parser.on(event, () => {
      state.wake();
    });
  const until = async (isDone: () => boolean) => {
    while (!state.failed && !isDone()) await new Promise<void>((resolve) => (state.wake = resolve));
  };
  try {
    for await (const chunk of chunks) {
      if (!goesOn(chunk)) return false;
      if (!parser.write(chunk)) await until(() => !parser.writableNeedDrain || parser.destroyed);
      if (state.failed) return false;
    }
    parser.end();
    await until(() => parser.closed);
    return !state.failed;
  } finally {
    if (!parser.closed) parser.destroy();
  }
}

/** Reads what comes and forgets it. */
export const forget = (stream: Readable): Readable => hearErrors(stream).resume();
