import busboy from 'busboy';
import express, { type Request, type Response } from 'express';

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

declare module 'express-serve-static-core' {
  interface Request {
    form: FormBody;
  }
}

const mostText = 1_000_000;
const mostFields = 300;
const mostFiles = 10;
/** What a request may send in all, in bytes: a form of a few large files. */
const mostBytes = 50_000_000;

const urlencoded = express.urlencoded({ extended: false, limit: mostText });

/** Whether a form comes with files, or could. */
export const sendsFiles = (request: Request): boolean => request.headers['content-type']?.startsWith('multipart/form-data') === true;

/**
 * Reads what a form sends, as application/x-www-form-urlencoded or, with files, as multipart/form-data (RFC 7578).
 * @param greatestFile bytes of a file; of a larger one nothing is kept but that it was too large. 0 takes no files at all
 * @throws an error with a status of 4xx where it cannot be read
 */
export async function readForm(request: Request, response: Response, greatestFile: number): Promise<void> {
  if (greatestFile > 0 && sendsFiles(request)) {
    request.form = await readMultipart(request, greatestFile);
    return;
  }
  await new Promise<void>((resolve, reject) => {
    urlencoded(request, response, (error?: unknown) => {
      if (error === undefined) resolve();
      else reject(error instanceof Error ? error : new Error('The form cannot be read.'));
    });
  });
  const texts = Object.entries((request.body ?? {}) as Record<string, unknown>).flatMap(([name, text]) => {
    const last: unknown = Array.isArray(text) ? text.at(-1) : text;
    return typeof last === 'string' ? [[name, last] as const] : [];
  });
  request.form = { texts: Object.fromEntries(texts), files: {} };
}

class UnreadableForm extends Error {
  readonly status: number;
  constructor(status: number, message: string) {
    super(message);
    this.status = status;
  }
}

function readMultipart(request: Request, greatestFile: number): Promise<FormBody> {
  return new Promise((resolve, reject) => {
    const body: FormBody = { texts: {}, files: {} };
    const fail = (status: number, message: string) => {
      request.unpipe();
      // What still comes is read and forgotten, so that the browser gets to hear the answer.
      request.resume();
      reject(new UnreadableForm(status, message));
    };
    if (Number(request.headers['content-length'] ?? 0) > mostBytes) {
      fail(413, 'The form sends too much.');
      return;
    }
    let parser: busboy.Busboy;
    try {
      parser = busboy({
        headers: request.headers,
        defParamCharset: 'utf8',
        limits: { fileSize: greatestFile, files: mostFiles, fields: mostFields, fieldSize: mostText, parts: mostFields + mostFiles },
      });
    } catch {
      fail(400, 'The form is not well-formed.');
      return;
    }
    let bytes = 0;
    parser.on('field', (name, text) => {
      body.texts[name] = text;
    });
    parser.on('file', (field, stream, { filename }) => {
      const chunks: Buffer[] = [];
      let cut = false;
      stream.on('data', (chunk: Buffer) => {
        bytes += chunk.length;
        if (bytes > mostBytes) fail(413, 'The form sends too much.');
        else if (!cut) chunks.push(chunk);
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
    parser.on('close', () => {
      resolve(body);
    });
    parser.on('error', () => {
      fail(400, 'The form is not well-formed.');
    });
    request.on('aborted', () => {
      fail(400, 'The form has not arrived whole.');
    });
    request.pipe(parser);
  });
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
