import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { WebSocket } from 'ws';
import { callText, type DrivenBrowser } from './driven-browser.ts';

/** Nothing of Firefox's own goes into the net. */
const preferences = {
  'app.update.enabled': false,
  'browser.shell.checkDefaultBrowser': false,
  'datareporting.policy.dataSubmissionEnabled': false,
  'network.captive-portal-service.enabled': false,
  'network.connectivity-service.enabled': false,
  'services.settings.server': 'http://127.0.0.1:9',
  'toolkit.telemetry.enabled': false,
};

interface Message {
  id?: number;
  type: string;
  message?: string;
  result?: unknown;
}

/** Starts Debian's Firefox and drives it by WebDriver BiDi. */
export async function startFirefox(): Promise<DrivenBrowser> {
  const profile = mkdtempSync(join(tmpdir(), 'pallmist-firefox-'));
  writeFileSync(
    join(profile, 'user.js'),
    Object.entries(preferences)
      .map(([name, value]) => `user_pref(${JSON.stringify(name)}, ${JSON.stringify(value)});`)
      .join('\n'),
  );
  const child = spawn('firefox-esr', ['--headless', '--profile', profile, '--remote-debugging-port=0', 'about:blank']);
  const address = await new Promise<string>((resolve, reject) => {
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => {
      said += chunk.toString();
      const found = /WebDriver BiDi listening on (ws:\S+)/.exec(said)?.[1];
      if (found !== undefined) resolve(found);
    });
    child.once('error', reject);
    child.once('exit', () => {
      reject(new Error(`Firefox ended: ${said}`));
    });
  });
  const socket = new WebSocket(`${address}/session`);
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
  const waiting = new Map<number, (message: Message) => void>();
  socket.on('message', (bytes: Buffer) => {
    const message = JSON.parse(bytes.toString()) as Message;
    if (message.id !== undefined) waiting.get(message.id)?.(message);
  });
  let last = 0;
  const send = <Result>(method: string, params: object): Promise<Result> =>
    new Promise((resolve, reject) => {
      const id = ++last;
      waiting.set(id, (message) => {
        waiting.delete(id);
        if (message.type === 'success') resolve(message.result as Result);
        else reject(new Error(`${method}: ${message.message ?? 'failed'}`));
      });
      socket.send(JSON.stringify({ id, method, params }));
    });
  await send('session.new', { capabilities: {} });
  const { contexts } = await send<{ contexts: { context: string }[] }>('browsingContext.getTree', {});
  const context = contexts[0]?.context ?? '';
  const traverse = (delta: number) => send<void>('browsingContext.traverseHistory', { context, delta });
  return {
    name: 'Firefox',
    open: (url) => send('browsingContext.navigate', { context, url, wait: 'complete' }),
    async run<Result>(work: (given: never) => Result | Promise<Result>, given?: unknown) {
      const expression = `Promise.resolve(${callText(work, given)}).then((value) => JSON.stringify(value ?? null))`;
      const answer = await send<{ type: string; result?: { value: string }; exceptionDetails?: { text: string } }>('script.evaluate', {
        expression,
        target: { context },
        awaitPromise: true,
      });
      if (answer.type !== 'success') throw new Error(answer.exceptionDetails?.text ?? 'The page threw.');
      return JSON.parse(answer.result?.value ?? 'null') as Result;
    },
    back: () => traverse(-1),
    forward: () => traverse(1),
    reload: () => send('browsingContext.reload', { context, wait: 'complete' }),
    async close() {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      await send('browser.close', {}).catch(() => child.kill('SIGKILL'));
      socket.terminate();
      await ended;
      rmSync(profile, { recursive: true, force: true });
    },
  };
}
