import { lookup } from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** Networks that no public receiver is in: private, shared, link-local and reserved ones (RFC 6890), IPv4 within IPv6 too. */
const inner = new BlockList();
for (const [network, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  // prettier-ignore
  inner.addSubnet(network, bits, 'ipv4');
for (const [network, bits] of [
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
  ['64:ff9b::', 96],
] as const)
  inner.addSubnet(network, bits, 'ipv6');
inner.addAddress('::', 'ipv6');

/** Whether an IP address belongs to an inner network. Loopback does not: a receiver may run on this machine. */
export function isInner(address: string): boolean {
  const bare = address.replace(/^\[|\]$/g, '');
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(bare)?.[1];
  const version = isIP(mapped ?? bare);
  return version !== 0 && inner.check(mapped ?? bare, version === 4 ? 'ipv4' : 'ipv6');
}

export const innerSentence =
  'The address is in a private or link-local network. Set PALLMIST_WEBHOOK_NETWORKS to “all” to allow such receivers.';

/** Looks a name up as Node does, and refuses one that leads into an inner network, whatever it led to before. */
export const publicLookup: LookupFunction = (hostname, options, done) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error !== null) done(error, '', 0);
    else if (addresses.some(({ address }) => isInner(address))) done(new Error(innerSentence), '', 0);
    else if (options.all === true) done(null, addresses);
    else done(null, addresses[0]?.address ?? '', addresses[0]?.family);
  });
};
