import { readAddress, staysOnSite } from '@pallmist/core';
import type { Request, Response } from 'express';
import { toBuffer, toString } from 'qrcode';
import type { HostedApp } from './hosted-app.ts';
import { message, type StatusMessage } from './messages.ts';

/** Longest text that a code still holds and that a telephone still reads from paper, in characters. */
const longestInCode = 1200;

/**
 * Draws an app's addresses as QR codes (`~qr.svg?of=…`, `~qr.png?of=…`).
 * @param base where the public reaches the service
 * @returns what to say, or undefined where it has answered; `false` where the request is for something else
 */
export async function answerQrCode(
  hosted: HostedApp,
  request: Request,
  response: Response,
  base: string,
): Promise<StatusMessage | false | undefined> {
  const [path = '', query = ''] = request.originalUrl.split('?');
  const { mount } = hosted.compiled;
  const kind = path === `${mount}/~qr.svg` ? 'svg' : path === `${mount}/~qr.png` ? 'png' : undefined;
  if (kind === undefined) return false;
  const of = new URLSearchParams(query).get('of') ?? '';
  // Codes of this app's own addresses only: others could be printed with this site's name on them.
  const own = staysOnSite(of) && (readAddress(hosted.compiled, of).page !== undefined || of.startsWith(`${mount}/~s/`));
  const text = base + of;
  if (!own) return message(hosted, 404, 'There is no such page', ['A code is drawn for addresses of this app only: ~qr.svg?of=/…']);
  if (text.length > longestInCode)
    return message(hosted, 400, 'The address is too long', ['Make a short address of it first; then it fits into a code.']);
  response.setHeader('cache-control', 'public, max-age=300');
  if (kind === 'svg') {
    response.type('image/svg+xml').send(await toString(text, { type: 'svg', margin: 4, errorCorrectionLevel: 'M' }));
  } else {
    response.type('image/png').send(await toBuffer(text, { type: 'png', margin: 4, scale: 8, errorCorrectionLevel: 'M' }));
  }
  return undefined;
}
