import busboy from 'busboy';
import type { Request } from 'express';
import { bodyChunks, holdBytes, readBody, RefusedBody } from '../http/bodies.ts';
import { formLimits } from '../http/limits.ts';
import { feed, hearErrors } from '../http/streams.ts';

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
  const body = await readBody(request, { bytes: formLimits.texts, total: formLimits.time });
  if (type !== 'application/x-www-form-urlencoded') return { texts: {}, files: {} };
  // Counted before they are taken apart: that takes longer.
  if (countOf(body, '&') >= formLimits.fields) throw tooManyFields();
  const texts: Record<string, string> = Object.create(null) as Record<string, string>;
  for (const [name, text] of new URLSearchParams(body.toString('utf8'))) texts[name] = text;
  return { texts, files: {} };
}

function countOf(bytes: Buffer, sign: string): number {
  let count = 0;
  for (let at = bytes.indexOf(sign); at !== -1; at = bytes.indexOf(sign, at + 1)) count++;
  return count;
}

const tooManyFields = () => new RefusedBody(413, `The form sends more than ${String(formLimits.fields)} fields.`);
const tooLong = () =>
  new RefusedBody(
    413,
    `The texts of the form are longer than ${String(formLimits.texts / 1000)} KB, which is the most that is taken here.`,
  );

async function readMultipart(request: Request, greatestFile: number): Promise<FormBody> {
  const body: FormBody = {
    texts: Object.create(null) as Record<string, string>,
    files: Object.create(null) as Record<string, SentFile>,
  };
  const { texts: mostText, fields, files } = formLimits;
  let parser: busboy.Busboy;
  try {
    parser = busboy({
      headers: request.headers,
      defParamCharset: 'utf8',
      limits: { fileSize: greatestFile, files, fields, fieldSize: mostText, parts: fields + files },
    });
  } catch {
    throw new RefusedBody(400, 'The form is not well-formed.');
  }
  let refused: RefusedBody | undefined;
  const refuse = (why: RefusedBody) => {
    refused ??= why;
  };
  let textBytes = 0;
  parser.on('field', (name, text) => {
    textBytes += Buffer.byteLength(text) + Buffer.byteLength(name);
    // One limit for all texts together.
    if (textBytes > mostText) refuse(tooLong());
    else body.texts[name] = text;
  });
  parser.on('fieldsLimit', () => {
    refuse(tooManyFields());
  });
  for (const event of ['filesLimit', 'partsLimit'] as const)
    parser.on(event, () => {
      refuse(new RefusedBody(413, `The form sends more than ${String(files)} files.`));
    });
  parser.on('file', (field, stream, { filename }) => {
    hearErrors(stream);
    const chunks: Buffer[] = [];
    let cut = false;
    stream.on('data', (chunk: Buffer) => {
      if (!cut) chunks.push(chunk);
    });
    stream.on('limit', () => {
      cut = true;
      chunks.length = 0;
    });
    stream.on('end', () => {
      const kept = Buffer.concat(chunks);
      // Browsers send an empty part for a box without a file.
      if (filename === '' || (filename === undefined && kept.length === 0)) return;
      body.files[field] = { name: tidyName(filename ?? ''), bytes: kept, size: cut ? Infinity : kept.length };
    });
  });
  const chunks = bodyChunks(request, { bytes: formLimits.bytes, total: formLimits.timeWithFiles });
  const whole = await feed(parser, chunks, ({ length }) => {
    holdBytes(request, length);
    return refused === undefined;
  });
  if (refused !== undefined) throw refused;
  if (!whole) throw new RefusedBody(400, 'The form is not well-formed.');
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
