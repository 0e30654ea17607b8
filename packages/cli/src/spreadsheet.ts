import { own } from '@pallmist/app';
import { strFromU8, unzipSync } from 'fflate';
import { CommandError, exit } from './exit.ts';

/** Parts of a workbook that hold its texts and links: Office Open XML (ECMA-376) and OpenDocument (ISO/IEC 26300). */
const parts = /^(?:xl\/(?:sharedStrings|worksheets\/(?:_rels\/)?[^/]+|comments\d*)\.xml(?:\.rels)?|content\.xml)$/;
/** Most bytes that a part may unpack to: a small file can hold a great one. */
const greatestPart = 200_000_000;

/** Whether a file is packed as spreadsheets are (ZIP). */
export const isPacked = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/**
 * The texts and links of a spreadsheet, each on a line of its own.
 * @throws CommandError for what is packed otherwise
 */
export function spreadsheetLines(name: string, bytes: Uint8Array): string[] {
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, { filter: ({ name: part, originalSize }) => parts.test(part) && originalSize <= greatestPart });
  } catch {
    throw new CommandError(exit.usage, `The file ${name} is damaged: it cannot be unpacked.`);
  }
  if (Object.keys(files).length === 0)
    throw new CommandError(exit.usage, `The file ${name} is packed, and no spreadsheet (.xlsx, .ods). Unpack it first.`);
  return Object.values(files).flatMap((part) => textsOf(strFromU8(part)));
}

/** The texts of an XML document, and the targets of its links. */
function textsOf(xml: string): string[] {
  const targets = [...xml.matchAll(/\b(?:Target|xlink:href)="([^"]*)"/g)].map(([, target = '']) => target);
  const texts = xml
    // A cell may be split into runs of different looks.
    .replaceAll(/<\/?(?:r|t|rPr|text:span|text:a)(?:\s[^>]*)?\/?>/g, '')
    .split(/<[^>]*>/)
    .map((text) => text.trim());
  return [...targets, ...texts].filter((text) => text.includes('/')).map(withoutEntities);
}

const entities: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

const withoutEntities = (text: string) =>
  text.replaceAll(/&(?:#(\d{1,7})|#x([0-9a-f]{1,6})|([a-z]+));/gi, (whole, decimal?: string, hex?: string, name?: string) => {
    const code = decimal === undefined ? (hex === undefined ? undefined : Number.parseInt(hex, 16)) : Number(decimal);
    if (code !== undefined) return code <= 0x10ffff ? String.fromCodePoint(code) : whole;
    return own(entities, name?.toLowerCase() ?? '') ?? whole;
  });
