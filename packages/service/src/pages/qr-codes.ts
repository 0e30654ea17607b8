import { crc32, deflateSync } from 'node:zlib';
import { longestAddress, readAddress, staysOnSite } from '@pallmist/app';
import type { Request, Response } from 'express';
import { create } from 'qrcode';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Clock } from '../clock.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import { message, valuesAnywhere, type StatusMessage } from './messages.ts';
import type { Route } from './route.ts';

/** Longest text that a code still holds and that a telephone still reads from paper, in characters. */
const longestInCode = 1200;
/** Pixels, or units of the drawing, of a module, and modules of empty margin around the code (ISO/IEC 18004 wants four). */
const scale = 8;
const margin = 4;
/** Codes that are kept drawn. */
const mostKept = 200;
const drawnByNetwork = { window: 60_000, most: 120 };

type CodeKind = 'svg' | 'png';

/** The kind of code that a path of an app asks for (`~qr.svg?of=…`, `~qr.png?of=…`); undefined for any other path. */
function codeKind({ compiled: { mount } }: HostedApp, path: string): CodeKind | undefined {
  return path === `${mount}/~qr.svg` ? 'svg' : path === `${mount}/~qr.png` ? 'png' : undefined;
}

/** Draws an app's addresses as QR codes. */
export class QrCodes implements Route {
  readonly #base: () => string;
  readonly #limit: AttemptLimit;
  readonly #drawn = new Map<string, Buffer>();

  /** @param base where the public reaches the service */
  constructor(base: () => string, clock: Clock) {
    this.#base = base;
    this.#limit = new AttemptLimit(drawnByNetwork, clock.steady);
  }

  get(hosted: HostedApp, path: string, request: Request, response: Response): ReturnType<Route['get']> {
    const kind = codeKind(hosted, path);
    return Promise.resolve(kind === undefined ? 'not-mine' : this.#answer(hosted, kind, request, response));
  }

  #answer(hosted: HostedApp, kind: CodeKind, request: Request, response: Response): StatusMessage | 'answered' {
    if (request.originalUrl.length > longestAddress)
      return message(hosted, 414, 'The address is too long', ['Create a short address for it first, so that it fits into a code.']);
    const of = new URLSearchParams(request.originalUrl.split('?')[1] ?? '').get('of') ?? '';
    // Codes of this app's own addresses only: others could be printed with this site's name on them.
    const own = staysOnSite(of) && (readAddress(hosted.compiled, of).page !== undefined || of.startsWith(`${hosted.compiled.mount}/~s/`));
    const values = valuesAnywhere(hosted, of);
    const text = this.#base() + of;
    if (!own)
      return message(hosted, 404, 'There is no such page', ['Codes are available only for addresses of this app: ~qr.svg?of=/…'], values);
    if (text.length > longestInCode)
      return message(hosted, 400, 'The address is too long', ['Create a short address for it first, so that it fits into a code.'], values);
    const name = `${kind} ${text}`;
    let drawn = this.#drawn.get(name);
    if (drawn === undefined) {
      if (this.#limit.isReachedBy(request, response))
        return message(hosted, 429, 'Too many codes', ['You requested too many codes. Please try again in a minute.'], values);
      drawn = draw(kind, text);
      if (this.#drawn.size >= mostKept) this.#drawn.delete(this.#drawn.keys().next().value ?? '');
      this.#drawn.set(name, drawn);
    }
    response.setHeader('cache-control', 'public, max-age=300');
    response.type(kind === 'svg' ? 'image/svg+xml' : 'image/png').send(drawn);
    return 'answered';
  }
}

function draw(kind: CodeKind, text: string): Buffer {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  const isDark = (x: number, y: number) => x >= 0 && y >= 0 && x < modules.size && y < modules.size && modules.get(y, x) === 1;
  return kind === 'svg' ? drawSvg(modules.size, isDark) : drawPng(modules.size, isDark);
}

type IsDark = (x: number, y: number) => boolean;

/** A path of the dark runs of each row. */
function drawSvg(size: number, isDark: IsDark): Buffer {
  const side = size + 2 * margin;
  let path = '';
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      if (!isDark(x, y)) continue;
      const from = x;
      while (isDark(x + 1, y)) x++;
      path += `M${String(from + margin)} ${String(y + margin)}h${String(x - from + 1)}v1h-${String(x - from + 1)}z`;
    }
  }
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${String(side)} ${String(side)}" shape-rendering="crispEdges"><path fill="#fff" d="M0 0h${String(side)}v${String(side)}H0z"/><path d="${path}"/></svg>\n`,
  );
}

/** A picture of one bit a pixel (PNG, ISO/IEC 15948): greyscale, bit depth 1. */
function drawPng(size: number, isDark: IsDark): Buffer {
  const side = (size + 2 * margin) * scale;
  const rowBytes = 1 + Math.ceil(side / 8);
  const pixels = Buffer.alloc(rowBytes * side, 0xff);
  for (let y = 0; y < side; y++) {
    const start = y * rowBytes;
    pixels[start] = 0;
    const row = Math.floor(y / scale) - margin;
    for (let x = 0; x < side; x++)
      if (isDark(Math.floor(x / scale) - margin, row))
        pixels[start + 1 + (x >> 3)] = (pixels[start + 1 + (x >> 3)] ?? 0) & ~(0x80 >> (x & 7));
  }
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([1, 0, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    pngChunk('IHDR', header),
    pngChunk('IDAT', deflateSync(pixels, { level: 6 })),
    pngChunk('IEND', Buffer.alloc(0)),
  ]);
}

function pngChunk(type: string, data: Buffer): Buffer {
  const named = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const chunk = Buffer.alloc(12 + data.length);
  chunk.writeUInt32BE(data.length, 0);
  named.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(named), 8 + data.length);
  return chunk;
}
