import { spawn } from 'node:child_process';
import { createServer, type AddressInfo } from 'node:net';
import { callText, type DrivenBrowser } from './driven-browser.ts';

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => {
        resolve(port);
      });
    });
  });

/** Starts Debian's WebKit and drives it by WebDriver. It needs a display, which Xvfb gives. */
export async function startWebKit(): Promise<DrivenBrowser> {
  const display = `:${String(90 + (process.pid % 900))}`;
  const screen = spawn('Xvfb', [display, '-screen', '0', '1280x800x24', '-nolisten', 'tcp'], { stdio: 'ignore' });
  const port = await freePort();
  const child = spawn('WebKitWebDriver', [`--port=${String(port)}`], {
    env: { ...process.env, DISPLAY: display, LIBGL_ALWAYS_SOFTWARE: '1' },
    stdio: 'ignore',
  });
  const base = `http://127.0.0.1:${String(port)}`;
  const call = async <Result>(method: string, path: string, body?: object): Promise<Result> => {
    const response = await fetch(base + path, {
      method,
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }),
    });
    const { value } = (await response.json()) as { value: Result & { message?: string } };
    if (!response.ok) throw new Error(`${path}: ${value.message ?? 'failed'}`);
    return value;
  };
  const begin = async (tries = 40): Promise<{ sessionId: string }> => {
    try {
      return await call<{ sessionId: string }>('POST', '/session', { capabilities: { alwaysMatch: {} } });
    } catch (error) {
      if (tries === 0) throw error;
      // The driver, or its display, is not there yet.
      await new Promise((resolve) => setTimeout(resolve, 250));
      return begin(tries - 1);
    }
  };
  const { sessionId } = await begin();
  const session = `/session/${sessionId}`;
  await call('POST', `${session}/timeouts`, { script: 120_000 });
  return {
    name: 'WebKit',
    open: (url) => call('POST', `${session}/url`, { url }),
    async run<Result>(work: (given: never) => Result | Promise<Result>, given?: unknown) {
      const script = `const done = arguments[arguments.length - 1];
        Promise.resolve(${callText(work, given)}).then((value) => done(JSON.stringify({ value: value ?? null })), (error) => done(JSON.stringify({ error: String(error) })));`;
      const answer = JSON.parse(await call<string>('POST', `${session}/execute/async`, { script, args: [] })) as {
        value: Result;
        error?: string;
      };
      if (answer.error !== undefined) throw new Error(answer.error);
      return answer.value;
    },
    // The driver’s own Back passes over entries that no click has made, as the browser’s button does.
    back: () => call('POST', `${session}/execute/sync`, { script: 'history.back()', args: [] }),
    forward: () => call('POST', `${session}/execute/sync`, { script: 'history.forward()', args: [] }),
    reload: () => call('POST', `${session}/refresh`, {}),
    async close() {
      await call('DELETE', session).catch(() => undefined);
      child.kill();
      screen.kill();
    },
  };
}
