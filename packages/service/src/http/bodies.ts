import type { Readable } from 'node:stream';
import { PallmistError } from '@pallmist/app';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import type { Request } from 'express';
import { networkOfRequest } from './network.ts';

/** A body that is not taken, with the HTTP status that says so. */
export class RefusedBody extends PallmistError {
  readonly code = 'body-refused';
  readonly status: number;

  constructor(status: number, message: string) {
    super(message);
    this.status = status;
  }
}

export interface BodyLimits {
  /** Most bytes, counted as they are unpacked. */
  bytes: number;
  /** Milliseconds within which the body has to be here. */
  total: number;
}

/** Milliseconds for which a body may come to a stop. */
const longestPause = 10_000;
/** Bodies that are read at a time: from one network, and in all. */
const mostOfNetwork = 24;
const mostAtOnce = 2000;
/** Bytes that are still read of a body that is too large, so that its sender gets to hear the answer. */
const readOn = 1_000_000;

/** Counts the bodies that are being read; those that never end keep their sender busy, and nobody else. */
export class BodyGate {
  readonly #ofNetworks = new Map<string, number>();
  #count = 0;

  /** @throws RefusedBody (429, 503) where too many are being read */
  async during<Result>(request: Request, work: () => Promise<Result>): Promise<Result> {
    const network = networkOfRequest(request);
    const ofNetwork = this.#ofNetworks.get(network) ?? 0;
    if (ofNetwork >= mostOfNetwork)
      throw new RefusedBody(429, 'So many forms are being sent from your network that no more are taken for a moment.');
    if (this.#count >= mostAtOnce) throw new RefusedBody(503, 'So many forms are being sent that no more are taken for a moment.');
    this.#count++;
    this.#ofNetworks.set(network, ofNetwork + 1);
    try {
      return await work();
    } finally {
      this.#count--;
      const left = (this.#ofNetworks.get(network) ?? 1) - 1;
      if (left === 0) this.#ofNetworks.delete(network);
      else this.#ofNetworks.set(network, left);
    }
  }
}

/**
 * The bytes of a body as they come, unpacked (RFC 9110, Content-Encoding), within limits of size and time.
 * @throws RefusedBody: 408 too slow, 413 too large, 415 packed in an unknown way, 400 cut off or not well packed
 */
export async function* bodyChunks(request: Request, { bytes, total }: BodyLimits): AsyncGenerator<Buffer> {
  const declared = Number(request.headers['content-length'] ?? 0);
  if (declared > bytes) {
    readAndForget(request);
    throw tooLarge(bytes);
  }
  const unpacked = unpack(request);
  let failure: RefusedBody | undefined;
  const fail = (error: RefusedBody) => {
    failure ??= error;
    unpacked.destroy(error);
  };
  const late = setTimeout(() => {
    fail(new RefusedBody(408, 'The request took too long to arrive.'));
  }, total);
  let pause: NodeJS.Timeout | undefined;
  const awaitNext = () => {
    clearTimeout(pause);
    pause = setTimeout(() => {
      fail(new RefusedBody(408, 'The request stopped in the middle.'));
    }, longestPause);
  };
  let size = 0;
  try {
    awaitNext();
    for await (const chunk of unpacked as AsyncIterable<Buffer>) {
      // While what came is being worked on, nobody waits for the sender.
      clearTimeout(pause);
      size += chunk.length;
      if (size > bytes) throw tooLarge(bytes);
      yield chunk;
      awaitNext();
    }
  } catch (error) {
    if (failure !== undefined) throw failure;
    if (error instanceof RefusedBody) throw error;
    throw new RefusedBody(400, 'The request was cut off, or is not packed as it says.');
  } finally {
    clearTimeout(late);
    clearTimeout(pause);
    if (!request.readableEnded) readAndForget(request);
  }
}

/** The whole body. */
export async function readBody(request: Request, limits: BodyLimits): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of bodyChunks(request, limits)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

const tooLarge = (bytes: number) =>
  new RefusedBody(
    413,
    `The request is larger than ${Math.round(bytes / 1000).toLocaleString('en')} KB, which is the most that is taken here.`,
  );

function unpack(request: Request): Readable {
  const encoding = request.headers['content-encoding']?.toLowerCase() ?? 'identity';
  const makers = { gzip: createGunzip, deflate: createInflate, br: createBrotliDecompress };
  if (encoding === 'identity' || encoding === '') return request;
  const maker = Object.hasOwn(makers, encoding) ? makers[encoding as keyof typeof makers] : undefined;
  if (maker === undefined) {
    readAndForget(request);
    throw new RefusedBody(415, 'The request is packed in a way that is not known here; gzip, deflate and br are.');
  }
  const unpacker = maker();
  request.once('aborted', () => {
    unpacker.destroy(new RefusedBody(400, 'The request was cut off.'));
  });
  return request.pipe(unpacker);
}

/** Reads what still comes and forgets it, as far as that is not too much; then the connection ends with the answer. */
function readAndForget(request: Request): void {
  let rest = 0;
  request.unpipe();
  request.on('data', (chunk: Buffer) => {
    rest += chunk.length;
    if (rest > readOn) request.pause();
  });
  request.resume();
  request.res?.setHeader('connection', 'close');
}
