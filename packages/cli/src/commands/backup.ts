import { dirname, join } from 'node:path';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';

interface BackupOptions {
  data?: string;
  json?: boolean;
}

const dataOf = ({ data }: BackupOptions) => data ?? process.env['PALLMIST_DATA'] ?? 'pallmist-data';
/** A name that sorts by time. */
const nameByTime = () => `pallmist-backup-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}`;
const size = (bytes: number) => (bytes < 1e6 ? `${String(Math.ceil(bytes / 1000))} KB` : `${(bytes / 1e6).toFixed(1)} MB`);

/** Adds the option that says where the data are. */
const withData = (command: Command) =>
  command
    .option('--data <directory>', 'The data directory of the service; else PALLMIST_DATA, else pallmist-data')
    .option('--json', 'Print JSON for programs');

/** The reasons that the service’s own code gives become this command’s. */
async function orExplain<Result>(work: () => Promise<Result>): Promise<Result> {
  const { StartError } = await import('@pallmist/service');
  try {
    return await work();
  } catch (error) {
    throw error instanceof StartError ? new CommandError(exit.problems, error.message) : error;
  }
}

export function addBackup(program: Command): void {
  withData(program.command('backup').argument('[directory]', 'A new directory; beside the data, named by the time, when left out'))
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist backup\n  pallmist backup /mnt/backups/garden-monday\nThe service can run meanwhile. The directory holds the database, the keys and the token: keep it as safe as them.',
    )
    .action(async (directory: string | undefined, options: BackupOptions) => {
      const data = dataOf(options);
      const to = directory ?? join(dirname(data), nameByTime());
      const { backUp } = await import('@pallmist/service');
      const manifest = await orExplain(() => backUp(data, to, () => Date.now()));
      const bytes = Object.values(manifest.files).reduce((sum, file) => sum + file.bytes, 0);
      print(options.json, { directory: to, ...manifest }, () => [`The backup is in ${to}, ${size(bytes)}.`]);
    });
}

export function addRestore(program: Command): void {
  withData(program.command('restore').argument('<directory>', 'A directory that “pallmist backup” has written'))
    .option('--replace', 'Also where the data directory has a database, which is kept beside')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist restore /mnt/backups/garden-monday --data /srv/pallmist\n  pallmist restore pallmist-backup-2026-11-26T10-00-00 --replace\nStop the service first.',
    )
    .action(async (directory: string, options: BackupOptions & { replace?: boolean }) => {
      const { restore } = await import('@pallmist/service');
      const data = dataOf(options);
      const done = await orExplain(() => restore(directory, data, { replace: options.replace === true, clock: () => Date.now() }));
      print(options.json, done, () => [
        `The data of ${done.madeAt.slice(0, 16).replace('T', ' ')} UTC are in ${data}.`,
        ...(done.before === undefined ? [] : [`What was there before is in ${done.before}.`]),
      ]);
    });
}
