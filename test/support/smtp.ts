import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

export interface Letter {
  to: string[];
  body: string;
}

export interface TestMailServer {
  url: string;
  received: Letter[];
  /** While it is set, no recipient is taken. */
  refuse: boolean;
  /** Connections that were made, and the most that were open at a time. */
  connections: { made: number; open: number; most: number };
  stop(): Promise<void>;
}

/** A mail server on loopback that keeps what it gets. */
export async function startMailServer(port = 0): Promise<TestMailServer> {
  const connections = { made: 0, open: 0, most: 0 };
  const state: Omit<TestMailServer, 'url' | 'stop'> = { received: [], refuse: false, connections };
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onConnect(_, done) {
      connections.made++;
      connections.most = Math.max(connections.most, ++connections.open);
      done();
    },
    onClose: () => void connections.open--,
    onRcptTo: ({ address }, _, done) => done(state.refuse ? new Error(`not now, ${address}`) : null),
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        state.received.push({ to: session.envelope.rcptTo.map(({ address }) => address), body: Buffer.concat(chunks).toString() });
        done();
      });
    },
  });
  // A client that vanishes is no fault of the test.
  server.on('error', () => undefined);
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  return Object.assign(state, {
    url: `smtp://127.0.0.1:${String((server.server.address() as AddressInfo).port)}`,
    stop: () => new Promise<void>((resolve) => server.close(resolve)),
  });
}
