import type { Service } from '@pallmist/service';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';

export interface ServeOptions {
  port?: string;
  host?: string;
  data?: string;
}

/** Adds the options that stand above the environment. */
export function withServeOptions(command: Command): Command {
  return command
    .option('--port <number>', 'Port to listen on; else PALLMIST_PORT, else 4680')
    .option('--host <host>', 'Host to listen on; else PALLMIST_HOST, else 127.0.0.1')
    .option('--data <directory>', 'Directory of the database; else PALLMIST_DATA, else pallmist-data');
}

export function addServe(program: Command): void {
  withServeOptions(program.command('serve'))
    .addHelpText('after', '\nExamples:\n  pallmist serve\n  PALLMIST_PORT=8080 pallmist serve --data /srv/pallmist')
    .action(async (options: ServeOptions) => {
      const stopped = stopSignal();
      const service = await startHere(options);
      say(`The console opens once with: ${service.consoleLink}`);
      say(`Drafts are shown at ${service.drafts}`);
      say(`Pallmist is ready at ${service.base}`);
      await stopped;
      await service.stop();
    });
}

/**
 * Starts the service in this process. Only what serves loads it: every other command begins in half the time without.
 * @throws CommandError that says which setting is wrong, or why it cannot start
 */
export async function startHere({ port, host, data }: ServeOptions): Promise<Service> {
  const { readSettings, startService, StartError } = await import('@pallmist/service');
  const orExplain = (status: number) => (error: unknown) => {
    if (error instanceof StartError) throw new CommandError(status, error.message);
    throw error;
  };
  const settings = await Promise.resolve({
    ...process.env,
    ...(port === undefined ? {} : { PALLMIST_PORT: port }),
    ...(host === undefined ? {} : { PALLMIST_HOST: host }),
    ...(data === undefined ? {} : { PALLMIST_DATA: data }),
  })
    .then(readSettings)
    .catch(orExplain(exit.usage));
  return startService(settings).catch(orExplain(exit.problems));
}

export const say = (line: string): void => {
  process.stdout.write(line + '\n');
};

/**
 * Listens for SIGTERM and SIGINT. Call it before the service starts: a signal that comes while it starts, or right after
 * it said that it is ready, must stop it cleanly too.
 * @returns settled by the first of them
 */
export function stopSignal(): Promise<void> {
  return new Promise((resolve) => {
    process.once('SIGTERM', () => {
      resolve();
    });
    process.once('SIGINT', () => {
      resolve();
    });
  });
}
