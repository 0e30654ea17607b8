import { createHmac, randomBytes } from 'node:crypto';
import { isIPv6 } from 'node:net';
import type { Request } from 'express';

/**
 * The network that an address is counted with: an IPv4 address by itself, an IPv6 address with its /48, which one
 * customer has to himself.
 */
export function networkOf(address: string): string {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped !== undefined || !isIPv6(address)) return mapped ?? address;
  const [head = '', tail] = address.split('%')[0]?.split('::') ?? [];
  const before = head === '' ? [] : head.split(':');
  const after = tail === undefined || tail === '' ? [] : tail.split(':');
  const groups =
    tail === undefined ? before : [...before, ...Array<string>(Math.max(0, 8 - before.length - after.length)).fill('0'), ...after];
  return `${groups
    .slice(0, 3)
    .map((group) => Number.parseInt(group, 16).toString(16))
    .join(':')}::/48`;
}

/** The network that a request comes from. */
export const networkOfRequest = (request: Request): string => networkOf(request.ip ?? request.socket.remoteAddress ?? '');

const salt = randomBytes(32);

/** A mark by which requests of one network are counted without its address being kept. */
export const networkMark = (request: Request): string => createHmac('sha256', salt).update(networkOfRequest(request)).digest('base64url');
