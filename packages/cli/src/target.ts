import { own } from '@pallmist/app';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PallmistClient } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from './exit.ts';

/** Options of the commands that speak to a service. */
export interface ServiceOptions {
  service: string;
  token?: string;
  json?: boolean;
}

/** Adds the options that say where the service is. */
export function withService(command: Command): Command {
  return command
    .option(
      '--service <url>',
      'Where the service is',
      process.env['PALLMIST_URL'] ?? `http://127.0.0.1:${process.env['PALLMIST_PORT'] ?? '4680'}`,
    )
    .option('--token <token>', 'The owner’s token; else PALLMIST_TOKEN, else the file api-token in PALLMIST_DATA')
    .option('--json', 'Print JSON for programs');
}

/** A client with the owner’s token, as far as it can be found. */
export async function clientFor({ service, token }: ServiceOptions): Promise<PallmistClient> {
  // Loaded only by commands that speak to a service: all others begin sooner without.
  const { PallmistClient: Client } = await import('@pallmist/api');
  return new Client({ base: service, token: token ?? process.env['PALLMIST_TOKEN'] ?? tokenOnDisk() });
}

function tokenOnDisk(): string | undefined {
  try {
    return readFileSync(join(process.env['PALLMIST_DATA'] ?? 'pallmist-data', 'api-token'), 'utf8').trim();
  } catch {
    return undefined;
  }
}

/**
 * @param file its name; “-” for standard input
 * @throws CommandError when it cannot be read
 */
export function readFile(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    const { code = '', message } = error as NodeJS.ErrnoException;
    throw new CommandError(exit.usage, `${file} cannot be read: ${own(reasons, code) ?? message}.`);
  }
}

const reasons: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder; name the app file in it',
  EACCES: 'you may not read it',
};
