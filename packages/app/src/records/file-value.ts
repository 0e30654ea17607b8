import { own } from '../own.ts';
import { Refusal } from '@pallmist/address/pages';
import { inEnglish, type Say } from '../languages/say.ts';

/** A file that lies beside the app file, by its name: no path leads out of its folder. */
const ownFile = /^(?!\.)[A-Za-z0-9_.-]{1,100}$/;
/** A file that a visitor has sent: a code of 128 random bits that nobody guesses, and the name that the file had. */
const sentFile = /^([A-Za-z0-9_-]{22})\/((?!\.)[^/\\\p{Cc}\p{Cf}]{1,100})$/u;

/** The greatest file that a field accepts where it says nothing, in kilobytes (1,000 bytes). */
export const defaultKilobytes = 5000;

/** Media types (RFC 2046) by the ending of a file's name, as far as files are known for what they are. */
const mediaTypes = new Map(
  Object.entries({
    svg: 'image/svg+xml',
    png: 'image/png',
    jpg: 'image/jpeg',
    jpeg: 'image/jpeg',
    webp: 'image/webp',
    gif: 'image/gif',
    avif: 'image/avif',
    pdf: 'application/pdf',
    txt: 'text/plain',
    csv: 'text/csv',
    json: 'application/json',
    zip: 'application/zip',
  }),
);

/** The media type of a file of this name; `application/octet-stream` for an ending that is not known. */
export const mediaTypeOf = (name: string): string =>
  mediaTypes.get(/\.([^.]*)$/.exec(name)?.[1]?.toLowerCase() ?? '') ?? 'application/octet-stream';

/** The value of a file field as people read it: the file's name. */
export const fileNameIn = (value: string): string => sentFile.exec(value)?.[2] ?? value;

/** The value of a file field as the last part of an address; “” for what is no such value. */
export function filePath(value: string): string {
  if (ownFile.test(value)) return value;
  const [, code, name] = sentFile.exec(value) ?? [];
  return code === undefined || name === undefined ? '' : `${code}/${encodeURIComponent(name.toWellFormed())}`;
}

/** Reads the text of a file field. */
export const readFileValue = (text: string): string | Refusal =>
  filePath(text) === '' ? new Refusal('no-file', 'It is no file that was sent here.') : text;

/** What a file field says of the files that it takes. */
export interface FileLimits {
  accept?: readonly string[] | undefined;
  maxKilobytes?: number | undefined;
}

/**
 * Why a file cannot be taken; undefined where it can.
 * @param bytes its length; `Infinity` where it was cut off as too large
 * @param say in another language; English when left out
 */
export function fileProblem(
  { accept, maxKilobytes = defaultKilobytes }: FileLimits,
  name: string,
  bytes: number,
  say: Say = inEnglish,
): string | undefined {
  if (bytes > maxKilobytes * 1000) return say('The file is too large: at most {0}.', inMegabytes(maxKilobytes));
  if (bytes === 0) return say('The file is empty.');
  const type = mediaTypeOf(name);
  const fits = accept === undefined || accept.some((one) => one === type || (one.endsWith('/*') && type.startsWith(one.slice(0, -1))));
  return fits ? undefined : `${say('It cannot be a file of this kind.')} ${acceptedFiles({ accept }, say) ?? ''}`.trim();
}

/** What a field takes, as a sentence. */
export function acceptedFiles({ accept, maxKilobytes }: FileLimits, say: Say = inEnglish): string | undefined {
  const spoken = (type: string) =>
    type === 'image/*' ? say('A picture') : type === 'text/plain' ? say('Plain text') : own(spokenTypes, type);
  const kinds = accept?.map((type) => spoken(type) ?? [...mediaTypes].find(([, known]) => known === type)?.[0] ?? type);
  const size = maxKilobytes === undefined ? undefined : say('At most {0}.', inMegabytes(maxKilobytes));
  const sentences = [kinds && `${kinds.join(', ')}.`, size].filter((sentence) => sentence !== undefined);
  return sentences.length === 0 ? undefined : sentences.join(' ');
}

const spokenTypes: Record<string, string> = {
  'image/jpeg': 'JPEG',
  'image/png': 'PNG',
  'image/webp': 'WebP',
  'image/gif': 'GIF',
  'image/avif': 'AVIF',
  'image/svg+xml': 'SVG',
  'application/pdf': 'PDF',
};

const inMegabytes = (kilobytes: number) => (kilobytes < 1000 ? `${String(kilobytes)} KB` : `${String(kilobytes / 1000)} MB`);
