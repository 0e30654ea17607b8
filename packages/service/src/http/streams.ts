import type { Readable, Writable } from 'node:stream';

// An `error` event without a listener ends the process, and a stream can fail twice, or after its reader has stopped. So each
// stream of a request has a listener for as long as the stream exists.

/** Listens for errors of a stream for as long as it exists. The code that reads the stream sees that it ends early. */
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
