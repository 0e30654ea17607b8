import type { Readable, Transform } from 'node:stream';
import { PallmistError } from '@pallmist/app';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import type { Request } from 'express';
import { bodyLimits } from './limits.ts';
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

/** What the bodies of a network, or of all, take. */
interface Held {
  count: number;
  bytes: number;
}

/** Counts the bodies that are being read, and what they take; those that never end keep their sender busy, and nobody else. */
export class BodyGate {
  readonly #ofNetworks = new Map<string, Held>();
  readonly #all: Held = { count: 0, bytes: 0 };

  /** @throws RefusedBody (429, 503) where too many are being read */
  async during<Result>(request: Request, work: () => Promise<Result>): Promise<Result> {
    const network = networkOfRequest(request);
    const own = this.#ofNetworks.get(network) ?? { count: 0, bytes: 0 };
    if (own.count >= bodyLimits.ofNetwork)
      throw new RefusedBody(429, 'So many forms are being sent from your network that no more are taken for a moment.');
    if (this.#all.count >= bodyLimits.atOnce)
      throw new RefusedBody(503, 'So many forms are being sent that no more are taken for a moment.');
    this.#ofNetworks.set(network, own);
    let bytes = 0;
    const hold = (more: number) => {
      bytes += more;
      own.bytes += more;
      this.#all.bytes += more;
      if (own.bytes > bodyLimits.heldOfNetwork || this.#all.bytes > bodyLimits.held)
        throw new RefusedBody(503, 'So much is being sent at once that no more is taken for a moment.');
    };
    this.#all.count++;
    own.count++;
    holders.set(request, hold);
    try {
      return await work();
    } finally {
      holders.delete(request);
      for (const held of [own, this.#all]) {
        held.count--;
        held.bytes -= bytes;
      }
      if (own.count === 0) this.#ofNetworks.delete(network);
    }
  }
}

/** How a request that a gate counts tells it what its body takes in memory. */
const holders = new WeakMap<Request, (bytes: number) => void>();

/** Counts bytes of a body that are kept in memory until it is done with. @throws RefusedBody (503) where all take too much */
export const holdBytes = (request: Request, bytes: number): void => holders.get(request)?.(bytes);

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
    }, bodyLimits.pause);
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
  for await (const chunk of bodyChunks(request, limits)) {
    holdBytes(request, chunk.length);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

const tooLarge = (bytes: number) =>
  new RefusedBody(
    413,
    `The request is larger than ${Math.round(bytes / 1000).toLocaleString('en')} KB, which is the most that is taken here.`,
  );

/** By the names of RFC 9110, Content-Encoding. */
const makers = new Map<string, () => Transform>([
  ['gzip', createGunzip],
  ['deflate', createInflate],
  ['br', createBrotliDecompress],
]);

function unpack(request: Request): Readable {
  const encoding = request.headers['content-encoding']?.toLowerCase() ?? 'identity';
  if (encoding === 'identity' || encoding === '') return request;
  const maker = makers.get(encoding);
  if (maker === undefined) {
    readAndForget(request);
    throw new RefusedBody(415, 'The request is packed in a way that is not known here; gzip, deflate and br are.');
  }
  const unpacker = maker();
  // It can fail again after its reader has stopped.
  unpacker.on('error', () => undefined);
  request.once('aborted', () => {
    unpacker.destroy(new RefusedBody(400, 'The request was cut off.'));
  });
  // Its failure must not end the request, which is still to be answered.
  // eslint-disable-next-line no-restricted-syntax
  return request.pipe(unpacker);
}

/** Reads what still comes and forgets it, as far as that is not too much; then the connection ends with the answer. */
function readAndForget(request: Request): void {
  let rest = 0;
  request.unpipe();
  request.on('data', (chunk: Buffer) => {
    rest += chunk.length;
    if (rest > bodyLimits.afterRefusal) request.pause();
  });
  request.resume();
  request.res?.setHeader('connection', 'close');
}
