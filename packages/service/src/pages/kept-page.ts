import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import type { Request, Response } from 'express';

/** Pages of fewer bytes are not compressed: it would gain nothing. */
const smallest = 1024;

/** The encodings that browsers accept, the shortest first. */
const encodings = {
  br: (bytes: Buffer): Promise<Buffer> => promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }),
  gzip: (bytes: Buffer): Promise<Buffer> => promisify(gzip)(bytes),
};
type Encoding = keyof typeof encodings;
const encodingNames = Object.keys(encodings) as Encoding[];

/** A page that many visitors get: its entity tag and its compressed forms are made once. */
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
    // Browsers list gzip first, but accept both.
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
