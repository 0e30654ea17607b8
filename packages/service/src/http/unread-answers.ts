import type { Server } from 'node:http';
import type { Socket } from 'node:net';
import { connectionLimits } from './limits.ts';
import { networkOf } from './network.ts';

/** Milliseconds between two looks. */
const lookEvery = 1000;

/**
 * Ends connections that have an answer waiting and take none of it: each holds its answer in memory for as long as it stays.
 * Behind a proxy that buffers, all of them are the proxy's, and it reads.
 */
export function endUnreadAnswers(server: Server): void {
  /** Connections with bytes that wait: how many, and since when as many. */
  const waiting = new Map<Socket, { bytes: number; since: number }>();
  const open = new Set<Socket>();
  const look = () => {
    const now = performance.now();
    const ofNetworks = new Map<string, number>();
    for (const socket of open) {
      const bytes = socket.writableLength;
      const before = waiting.get(socket);
      if (bytes === 0) waiting.delete(socket);
      else if (before?.bytes !== bytes) {
        // What is read goes to the end, so that those that have read nothing for longest stand first.
        waiting.delete(socket);
        waiting.set(socket, { bytes, since: now });
      }
    }
    for (const socket of waiting.keys()) {
      const network = networkOf(socket.remoteAddress ?? '');
      ofNetworks.set(network, (ofNetworks.get(network) ?? 0) + 1);
    }
    for (const [socket, { since }] of waiting) {
      const network = networkOf(socket.remoteAddress ?? '');
      const count = ofNetworks.get(network) ?? 0;
      const stuck = now - since >= lookEvery;
      if (now - since < connectionLimits.unread && !(stuck && count > connectionLimits.unreadOfNetwork)) continue;
      ofNetworks.set(network, count - 1);
      waiting.delete(socket);
      socket.destroy();
    }
  };
  const timer = setInterval(look, lookEvery).unref();
  server.on('connection', (socket: Socket) => {
    open.add(socket);
    socket.once('close', () => {
      open.delete(socket);
      waiting.delete(socket);
    });
  });
  server.once('close', () => {
    clearInterval(timer);
  });
}
