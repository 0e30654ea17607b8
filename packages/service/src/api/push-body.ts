import busboy from 'busboy';
import type { Request } from 'express';
import type { Push } from '../apps/app-editor.ts';
import type { RecordSource } from '../apps/record-import.ts';
import { bodyChunks, RefusedBody } from '../http/bodies.ts';

const mostSource = 20_000_000;
/** Bytes of a picture. */
export const mostPicture = 3_000_000;
/** Bytes of a push with its records. */
const mostBytes = 2_000_000_000;
/** Milliseconds within which it has to be here. */
const mostTime = 60 * 60_000;
export const pictureName = /^(?!\.)[A-Za-z0-9_.-]{1,100}\.(?:svg|png|jpe?g|webp|gif|avif)$/;

/**
 * Reads a push that comes as multipart/form-data: the texts `source`, `revision` and `replace` first, then files, named
 * `records.COLLECTION` (CSV, or JSON by its media type) and `files.NAME`. Records are handed on while they come in.
 * @param push called as soon as the texts are here; it has to read all records
 */
export async function readPush<Result>(request: Request, push: (given: Push) => Promise<Result>): Promise<Result> {
  let parser: busboy.Busboy;
  try {
    parser = busboy({ headers: request.headers, defParamCharset: 'utf8', limits: { fieldSize: mostSource, fields: 10, files: 500 } });
  } catch {
    throw new RefusedBody(400, 'The push is not well-formed.');
  }
  const texts: Record<string, string> = {};
  const pictures: Record<string, Buffer> = {};
  const waiting: RecordSource[] = [];
  let wake: () => void = () => undefined;
  let ended = false;
  let failure: Error | undefined;
  const fail = (error: Error) => {
    failure ??= error;
    wake();
  };
  parser.on('field', (name, text) => {
    texts[name] = text;
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
        if (size > mostPicture) fail(new RefusedBody(413, `The picture ${name} is larger than 3 MB.`));
        else chunks.push(chunk);
      });
      stream.on('end', () => {
        pictures[name] = Buffer.concat(chunks);
      });
    } else {
      stream.resume();
      fail(new RefusedBody(422, `A push has no part “${field.slice(0, 60)}”.`));
    }
  });
  parser.on('close', () => {
    ended = true;
    wake();
  });
  parser.on('error', () => {
    fail(new RefusedBody(400, 'The push is not well-formed.'));
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
  const feed = async () => {
    try {
      for await (const chunk of bodyChunks(request, { bytes: mostBytes, total: mostTime })) {
        if (failure) return;
        if (!parser.write(chunk)) await new Promise<void>((resolve) => parser.once('drain', resolve).once('close', resolve));
      }
      parser.end();
    } catch (error) {
      fail(error instanceof Error ? error : new Error(String(error)));
      parser.destroy();
    }
  };
  const fed = feed();
  const all = records();
  // The texts stand before the first file: they are here when that is.
  const first = await all.next();
  const source = texts['source'];
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
  const revision = texts['revision'] === undefined ? undefined : Number(texts['revision']);
  try {
    const result = await push({ source, revision, replace: texts['replace'] === 'true', records: fromFirst(), files: pictures });
    await fed;
    return result;
  } catch (error) {
    // What still comes is of no use.
    fail(error instanceof Error ? error : new Error(String(error)));
    for (const { content } of waiting) (content as NodeJS.ReadableStream).resume();
    parser.destroy();
    await fed;
    throw error;
  }
}
