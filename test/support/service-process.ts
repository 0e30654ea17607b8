import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const main = fileURLToPath(new URL('../../packages/cli/dist/main.js', import.meta.url));

export interface ServiceProcess {
  base: string;
  token: string;
  child: ChildProcess;
  /** All that it has written so far, its log too. */
  said: () => string;
  /** Stops it, by SIGTERM unless told otherwise. @returns its exit status, or null where it was killed */
  end(signal?: NodeJS.Signals): Promise<number | null>;
}

/**
 * Starts the built command as a process of its own and waits until it serves.
 * @param limitBlocks the largest file that it can write, in KiB, as on a disk that is full
 */
export function startProcess(
  data: string,
  {
    command = 'serve',
    environment = {},
    limitBlocks,
  }: { command?: string; environment?: Record<string, string>; limitBlocks?: number } = {},
): Promise<ServiceProcess> {
  const env = { PATH: process.env['PATH'], PALLMIST_PORT: '0', PALLMIST_DATA: data, PALLMIST_LOG: 'info', ...environment };
  const words = [process.execPath, main, command];
  const child =
    limitBlocks === undefined
      ? spawn(process.execPath, words.slice(1), { env })
      : spawn('bash', ['-c', `ulimit -f ${String(limitBlocks)}; exec "$@"`, 'bash', ...words], { env });
  let output = '';
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  return new Promise((resolve, reject) => {
    const listen = (chunk: Buffer) => {
      output += chunk.toString();
      const base = /ready at (http:\S+)/.exec(output)?.[1];
      if (base === undefined) return;
      resolve({
        base,
        child,
        token: readFileSync(join(data, 'api-token'), 'utf8').trim(),
        said: () => output,
        end(signal = 'SIGTERM') {
          child.kill(signal);
          return ended;
        },
      });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.once('exit', () => reject(new Error(output)));
  });
}
