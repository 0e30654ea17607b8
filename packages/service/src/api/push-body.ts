import type { Readable } from 'node:stream';
import busboy from 'busboy';
import type { Request } from 'express';
import type { Push } from '../apps/app-editor.ts';
import type { RecordSource } from '../apps/record-import.ts';
import { bodyChunks, RefusedBody } from '../http/bodies.ts';
import { apiLimits } from '../http/limits.ts';
import { feed, forget } from '../http/streams.ts';

export const pictureName = /^(?!\.)[A-Za-z0-9_.-]{1,100}\.(?:svg|png|jpe?g|webp|gif|avif)$/;

/**
 * Reads a push that comes as multipart/form-data: the texts `source`, `revision` and `replace` first, then files, named
 * `records.COLLECTION` (CSV, or JSON by its media type) and `files.NAME`. Records are handed on while they come in.
 * @param push called as soon as the texts are here; it has to read all records
 */
export async function readPush<Result>(request: Request, push: (given: Push) => Promise<Result>): Promise<Result> {
  const { source: mostSource, fields, files } = apiLimits;
  let parser: busboy.Busboy;
  try {
    parser = busboy({ headers: request.headers, defParamCharset: 'utf8', limits: { fieldSize: mostSource, fields, files } });
  } catch {
    throw new RefusedBody(400, 'The push is not well-formed.');
  }
  const texts = new Map<string, string>();
  const pictures = new Map<string, Buffer>();
  const waiting: RecordSource[] = [];
  let wake: () => void = () => undefined;
  let ended = false;
  let failure: Error | undefined;
  const fail = (error: Error) => {
    failure ??= error;
    wake();
  };
  parser.on('field', (name, text) => {
    texts.set(name, text);
  });
  parser.on('file', (field, stream, { mimeType }) => {
    const [kind, name] = [field.slice(0, field.indexOf('.')), field.slice(field.indexOf('.') + 1)];
    stream.on('error', fail);
    if (kind === 'records') {
      waiting.push({ collection: name, format: mimeType === 'application/json' ? 'json' : 'csv', content: stream });
      wake();
    } else if (kind === 'files' && pictureName.test(name)) {
      const chunks: Buffer[] = [];
      let size = 0;
      stream.on('data', (chunk: Buffer) => {
        size += chunk.length;
        if (size > apiLimits.picture) fail(new RefusedBody(413, `The picture ${name} is larger than 3 MB.`));
        else chunks.push(chunk);
      });
      stream.on('end', () => {
        pictures.set(name, Buffer.concat(chunks));
      });
    } else {
      forget(stream);
      fail(new RefusedBody(422, `A push has no part “${field.slice(0, 60)}”.`));
    }
  });
  parser.on('close', () => {
    ended = true;
    wake();
  });

  async function* records(): AsyncGenerator<RecordSource> {
    for (;;) {
      if (failure) throw failure;
      const next = waiting.shift();
      if (next) yield next;
      else if (ended) return;
      else await new Promise<void>((resolve) => (wake = resolve));
    }
  }
  const chunks = bodyChunks(request, { bytes: apiLimits.imported, total: apiLimits.importTime });
  const fed = feed(parser, chunks, () => failure === undefined).then(
    (whole) => {
      if (!whole) fail(new RefusedBody(400, 'The push is not well-formed.'));
    },
    (error: unknown) => {
      fail(error instanceof Error ? error : new Error(String(error)));
    },
  );
  const all = records();
  // The texts stand before the first file: they are here when that is.
  const first = await all.next();
  const source = texts.get('source');
  if (source === undefined) {
    fail(new RefusedBody(422, 'A push begins with the part “source”, the text of the app file.'));
    await fed;
    throw failure ?? new RefusedBody(400, 'The push is not well-formed.');
  }
  async function* fromFirst(): AsyncGenerator<RecordSource> {
    if (first.done === true) return;
    yield first.value;
    yield* all;
  }
  const revision = texts.get('revision');
  try {
    const result = await push({
      source,
      revision: revision === undefined ? undefined : Number(revision),
      replace: texts.get('replace') === 'true',
      records: fromFirst(),
      files: Object.fromEntries(pictures),
    });
    await fed;
    return result;
  } catch (error) {
    // What still comes is of no use.
    fail(error instanceof Error ? error : new Error(String(error)));
    for (const { content } of waiting) forget(content as Readable);
    parser.destroy();
    await fed;
    throw error;
  }
}
