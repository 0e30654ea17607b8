import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import type { Request, Response } from 'express';

/** Less than this is sent as it is: compressing it gains nothing. In bytes. */
const smallest = 1024;

/** What browsers take, the shortest first. */
const encodings = {
  br: (bytes: Buffer): Promise<Buffer> => promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }),
  gzip: (bytes: Buffer): Promise<Buffer> => promisify(gzip)(bytes),
};
type Encoding = keyof typeof encodings;
const encodingNames = Object.keys(encodings) as Encoding[];

/** The same bytes for many visitors: their entity tag and their compressed forms are made once. */
export class KeptPage {
  readonly #bytes: Buffer;
  readonly #etag: string;
  readonly #compressed = new Map<Encoding, Promise<Buffer>>();

  constructor(text: string) {
    this.#bytes = Buffer.from(text);
    this.#etag = `W/"${createHash('sha1').update(this.#bytes).digest('base64url')}"`;
  }

  get length(): number {
    return this.#bytes.length;
  }

  async send(request: Request, response: Response): Promise<void> {
    response.setHeader('etag', this.#etag);
    const bytes = this.#bytes;
    if (bytes.length < smallest) {
      response.send(bytes);
      return;
    }
    response.vary('Accept-Encoding');
    // Browsers name gzip first and take both.
    const encoding = encodingNames.find((name) => request.acceptsEncodings(name) === name);
    if (encoding === undefined) {
      response.send(bytes);
      return;
    }
    let compressed = this.#compressed.get(encoding);
    if (compressed === undefined) this.#compressed.set(encoding, (compressed = encodings[encoding](bytes)));
    response.setHeader('content-encoding', encoding).send(await compressed);
  }
}
