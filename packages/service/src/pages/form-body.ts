import busboy from 'busboy';
import type { Request } from 'express';
import { bodyChunks, readBody, RefusedBody } from '../http/bodies.ts';

/** A file as a form has sent it. */
export interface SentFile {
  /** Its name, without any path. */
  name: string;
  /** Empty where it was too large. */
  bytes: Buffer;
  /** `Infinity` where it was too large. */
  size: number;
}

/** What a form has sent. Names that it gives twice count once, the last time. */
export interface FormBody {
  texts: Record<string, string>;
  files: Record<string, SentFile>;
}

/** Bytes of a form without files. */
const mostText = 1_000_000;
const mostFields = 300;
const mostFiles = 10;
/** Bytes of a form with files, all of it. */
const mostWithFiles = 50_000_000;
/** Milliseconds within which a form has to be here. */
const textTime = 30_000;
const fileTime = 10 * 60_000;

/** Whether a form comes with files, or could. */
export const sendsFiles = (request: Request): boolean => request.headers['content-type']?.startsWith('multipart/form-data') === true;

/**
 * Reads what a form sends, as application/x-www-form-urlencoded or, with files, as multipart/form-data (RFC 7578).
 * @param greatestFile bytes of a file; of a larger one nothing is kept but that it was too large. 0 takes no files at all
 * @throws RefusedBody where it cannot be read
 */
export async function readForm(request: Request, greatestFile: number): Promise<FormBody> {
  if (greatestFile > 0 && sendsFiles(request)) return readMultipart(request, greatestFile);
  const type = request.headers['content-type']?.split(';')[0]?.trim().toLowerCase();
  const body = await readBody(request, { bytes: mostText, total: textTime });
  if (type !== 'application/x-www-form-urlencoded') return { texts: {}, files: {} };
  const texts: Record<string, string> = Object.create(null) as Record<string, string>;
  let fields = 0;
  for (const [name, text] of new URLSearchParams(body.toString('utf8'))) {
    if (++fields > mostFields) throw new RefusedBody(413, `The form sends more than ${String(mostFields)} fields.`);
    texts[name] = text;
  }
  return { texts, files: {} };
}

async function readMultipart(request: Request, greatestFile: number): Promise<FormBody> {
  const body: FormBody = { texts: Object.create(null) as Record<string, string>, files: {} };
  let parser: busboy.Busboy;
  try {
    parser = busboy({
      headers: request.headers,
      defParamCharset: 'utf8',
      limits: { fileSize: greatestFile, files: mostFiles, fields: mostFields, fieldSize: mostText, parts: mostFields + mostFiles },
    });
  } catch {
    throw new RefusedBody(400, 'The form is not well-formed.');
  }
  const parsed = new Promise<void>((resolve, reject) => {
    parser.once('close', resolve);
    parser.once('error', () => {
      reject(new RefusedBody(400, 'The form is not well-formed.'));
    });
  });
  // Told at the end of the request; until then nobody listens.
  parsed.catch(() => undefined);
  let textBytes = 0;
  parser.on('field', (name, text) => {
    textBytes += text.length;
    // One limit for all texts together.
    if (textBytes > mostText) parser.destroy(new Error('too many texts'));
    else body.texts[name] = text;
  });
  parser.on('file', (field, stream, { filename }) => {
    const chunks: Buffer[] = [];
    let cut = false;
    stream.on('data', (chunk: Buffer) => {
      if (!cut) chunks.push(chunk);
    });
    stream.on('limit', () => {
      cut = true;
      chunks.length = 0;
    });
    stream.on('error', () => undefined);
    stream.on('end', () => {
      const kept = Buffer.concat(chunks);
      // Browsers send an empty part for a box without a file.
      if (filename === '' || (filename === undefined && kept.length === 0)) return;
      body.files[field] = { name: tidyName(filename ?? ''), bytes: kept, size: cut ? Infinity : kept.length };
    });
  });
  for await (const chunk of bodyChunks(request, { bytes: mostWithFiles, total: fileTime })) {
    if (parser.destroyed) break;
    if (!parser.write(chunk)) await new Promise<void>((resolve) => parser.once('drain', resolve).once('close', resolve));
  }
  if (textBytes > mostText)
    throw new RefusedBody(
      413,
      `The texts of the form are longer than ${String(mostText / 1000)} KB, which is the most that is taken here.`,
    );
  parser.end();
  await parsed;
  return body;
}

/** A file's name as it is kept: without a path, signs that nobody sees, or a beginning that hides it; its ending stays. */
function tidyName(given: string): string {
  const bare = (given.split(/[/\\]/).at(-1) ?? '').normalize('NFC').toWellFormed();
  const visible = bare
    .replaceAll(/[\p{Cc}\p{Cf}]/gu, '')
    .replace(/^\.+/, '')
    .trim();
  const ending = /\.[A-Za-z0-9]{1,8}$/.exec(visible)?.[0] ?? '';
  const stem = [...visible.slice(0, visible.length - ending.length)].slice(0, 60).join('');
  return `${stem === '' ? 'file' : stem}${ending}`;
}
