import { createServer, type RequestListener, type Server } from 'node:http';
import { Server as NetServer, type AddressInfo } from 'node:net';
import type { Settings } from '../settings.ts';
import { StartError } from '../start-error.ts';
import { connectionLimits, headLimits } from './limits.ts';
import { encodedTarget } from './odd-target.ts';
import { endUnreadAnswers } from './unread-answers.ts';

/** Milliseconds, at a stop, in which connections are told to close with their next answer rather than cut. */
const grace = 800;
const closeEvery = 50;

/** The HTTP server. Bodies have time limits of their own. */
export function httpServer(listener: RequestListener): Server {
  const server = createServer(
    {
      maxHeaderSize: headLimits.bytes,
      requestTimeout: 0,
      headersTimeout: headLimits.time,
      keepAliveTimeout: connectionLimits.idle,
      connectionsCheckingInterval: 2000,
    },
    listener,
  );
  endUnreadAnswers(server);
  server.on('clientError', (error: NodeJS.ErrnoException & { rawPacket?: Buffer }, socket) => {
    const encoded = error.code === 'HPE_INVALID_URL' ? encodedTarget(error.rawPacket) : undefined;
    if (encoded !== undefined && socket.writable) {
      socket.end(`HTTP/1.1 303 See Other\r\nlocation: ${encoded}\r\ncontent-length: 0\r\nconnection: close\r\n\r\n`);
      return;
    }
    const status = error.code === 'HPE_HEADER_OVERFLOW' ? '431 Request Header Fields Too Large' : '400 Bad Request';
    if (socket.writable)
      socket.end(
        `HTTP/1.1 ${status}\r\ncontent-type: text/plain\r\nconnection: close\r\n\r\nThe request is not well-formed, or its address or header fields are far too long.\n`,
      );
  });
  return server;
}

/** @returns the port @throws StartError when the server cannot listen there */
export async function listen(server: Server, { port, host }: Pick<Settings, 'port' | 'host'>, setting = 'PALLMIST_PORT'): Promise<number> {
  try {
    return await listenAt(server, port, host);
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (code === 'EADDRINUSE')
      throw new StartError(`Port ${String(port)} on ${host} is in use. Stop what is there, or set ${setting} to another port.`);
    if (code === 'EACCES')
      throw new StartError(`The port ${String(port)} may not be used by this account. Set ${setting} to one above 1023.`);
    throw new StartError(`The service cannot listen at ${host}:${String(port)}: ${message}. Check PALLMIST_HOST and ${setting}.`);
  }
}

/**
 * Listens for those who look at drafts: at the port that is set, else one above the service’s own, or at any free one where
 * that cannot be had.
 * @returns the port
 */
export async function listenForDrafts(server: Server, { draftPort, port, host }: Settings, service: number): Promise<number> {
  if (draftPort !== undefined) return listen(server, { port: draftPort, host }, 'PALLMIST_DRAFT_PORT');
  const beside = port === 0 || service === 65_535 ? 0 : service + 1;
  return listenAt(server, beside, host).catch(() => listen(server, { port: 0, host }, 'PALLMIST_DRAFT_PORT'));
}

function listenAt(server: Server, port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      server.off('error', reject);
      resolve((server.address() as AddressInfo).port);
    });
  });
}

/**
 * Stops a server: nothing new is taken, what is under way is finished. A connection is closed with its next answer, so that
 * no request on it is cut off; those without a request go after a moment, and all of them after `timeout` milliseconds.
 */
export async function closeServer(server: Server, timeout: number): Promise<void> {
  server.prependListener('request', (_, response) => {
    if (!response.headersSent) response.setHeader('connection', 'close');
  });
  const began = performance.now();
  await new Promise<void>((resolve) => {
    const closing = setInterval(() => {
      if (performance.now() - began > timeout) server.closeAllConnections();
      else if (performance.now() - began > grace) server.closeIdleConnections();
    }, closeEvery);
    // The server's own close would cut connections on which a request may be arriving.
    NetServer.prototype.close.call(server, () => {
      clearInterval(closing);
      resolve();
    });
  });
}
