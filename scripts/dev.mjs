// npm run dev: builds on every change, starts the demo again, and reloads the open pages. Ctrl+C stops all of it.
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import { createServer, request } from 'node:http';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../', import.meta.url));
const port = Number(process.env.PALLMIST_PORT ?? 4680);
/** Where the service itself listens; browsers come by way of the address that is printed. */
const behind = port + 1;
/** Milliseconds without a further change after which the service starts again. */
const quiet = 400;
/** What is added to every page: it reloads when the service has started again. */
const reloader = `<script>new EventSource('/~dev/reload').onmessage = () => location.reload();</script>`;

const children = new Set();
let stopping = false;
function start(command, args, { cwd = root, env = {}, quietly = false } = {}) {
  const child = spawn(command, args, {
    cwd,
    env: { ...process.env, ...env },
    stdio: ['ignore', quietly ? 'ignore' : 'inherit', 'inherit'],
  });
  children.add(child);
  child.once('exit', () => children.delete(child));
  return child;
}

const builders = [
  ['.', ['tsc', '-b', '--watch', '--preserveWatchOutput']],
  ['packages/pages', ['vite', 'build', '--watch', '--logLevel', 'warn']],
  ['packages/pages', ['vite', 'build', '--ssr', 'src/server.ts', '--watch', '--logLevel', 'warn']],
  ['packages/cli', ['vite', 'build', '--watch', '--logLevel', 'warn']],
  ['packages/console', ['vite', 'build', '--watch', '--logLevel', 'warn']],
];
for (const [folder, command] of builders) start('npx', ['--no-install', ...command], { cwd: `${root}${folder}`, quietly: folder !== '.' });

const listeners = new Set();
let service;
function startService() {
  service = start(process.execPath, ['--enable-source-maps', 'packages/cli/dist/main.js', 'demo'], {
    env: {
      PALLMIST_PORT: String(behind),
      PALLMIST_PUBLIC_URL: `http://127.0.0.1:${port}`,
      PALLMIST_DATA: process.env.PALLMIST_DATA ?? `${root}demo-data`,
      PALLMIST_LOG: process.env.PALLMIST_LOG ?? 'warn',
      NODE_ENV: 'development',
    },
  });
}

let timer;
let restarting = Promise.resolve();
function changed() {
  clearTimeout(timer);
  timer = setTimeout(() => {
    restarting = restarting.then(async () => {
      if (stopping) return;
      console.log('Something changed: starting again …');
      const before = service;
      if (before.exitCode === null) {
        before.kill('SIGTERM');
        await new Promise((resolve) => before.once('exit', resolve));
      }
      startService();
      await untilReady();
      for (const listener of listeners) listener.write('data: reload\n\n');
    });
  }, quiet);
}

async function untilReady() {
  for (let waited = 0; waited < 30_000; waited += 200) {
    const ready = await fetch(`http://127.0.0.1:${behind}/~/ready`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (ready || stopping) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

/** Passes a request on to the service; a page gets the script that reloads it. */
const door = createServer((incoming, outgoing) => {
  if (incoming.url === '/~dev/reload') {
    outgoing.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }).write(':\n\n');
    listeners.add(outgoing);
    outgoing.once('close', () => listeners.delete(outgoing));
    return;
  }
  const headers = { ...incoming.headers, 'accept-encoding': 'identity' };
  const passed = request({ host: '127.0.0.1', port: behind, method: incoming.method, path: incoming.url, headers }, (answer) => {
    const isPage = answer.headers['content-type']?.startsWith('text/html') === true;
    if (!isPage) {
      outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
      answer.pipe(outgoing);
      return;
    }
    // The policy of the pages allows no inline script, and their length is another one now.
    const kept = { ...answer.headers, 'cache-control': 'no-store' };
    for (const name of ['content-security-policy', 'content-length', 'etag']) delete kept[name];
    outgoing.writeHead(answer.statusCode ?? 502, kept);
    const chunks = [];
    answer.on('data', (chunk) => chunks.push(chunk));
    answer.on('end', () => outgoing.end(Buffer.concat(chunks).toString('utf8').replace('</body>', `${reloader}</body>`)));
  });
  passed.on('error', () => {
    if (!outgoing.headersSent) outgoing.writeHead(503, { 'content-type': 'text/html' });
    outgoing.end(`<p>The service is starting. This page reloads when it is ready.</p>${reloader}`);
  });
  incoming.pipe(passed);
});
door.listen(port, '127.0.0.1', () =>
  console.log(`Development: open http://127.0.0.1:${port}/garden (the service itself is one port above).`),
);

startService();
for (const folder of ['address', 'app', 'api', 'service', 'cli', 'pages', 'console', 'browser']) {
  watch(`${root}packages/${folder}/dist`, { recursive: true }, changed);
}
watch(`${root}demo/quillmoor`, { recursive: true }, changed);

function stop() {
  stopping = true;
  door.close();
  for (const child of children) child.kill('SIGTERM');
  setTimeout(() => process.exit(0), 1000).unref();
}
process.once('SIGINT', stop);
process.once('SIGTERM', stop);
