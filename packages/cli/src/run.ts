import { ApiError, SlowServiceError, UnreachableError } from '@pallmist/api';
import { PallmistError, ProblemError } from '@pallmist/app';
import { Command, CommanderError } from 'commander';
import { addAccess } from './commands/access.ts';
import { addCheck } from './commands/check.ts';
import { addDemo } from './commands/demo.ts';
import { addKeys } from './commands/keys.ts';
import { addOutbox } from './commands/outbox.ts';
import { addPeople } from './commands/people.ts';
import { addPublish } from './commands/publish.ts';
import { addPush } from './commands/push.ts';
import { addRecords } from './commands/records.ts';
import { addRead } from './commands/read.ts';
import { addRename } from './commands/rename.ts';
import { addServe } from './commands/serve.ts';
import { addShort } from './commands/short.ts';
import { addVisits } from './commands/visits.ts';
import { addWrite } from './commands/write.ts';
import { CommandError, exit } from './exit.ts';
import { describeProblems } from './problems.ts';
import { version } from './version.ts';

/** Runs one command line. @returns the exit status */
export async function run(words: readonly string[]): Promise<number> {
  const program = new Command('pallmist')
    .description('Pallmist keeps the state of a page in its address. Reads and writes addresses; checks, publishes and serves apps.')
    .version(version, '-V, --version', 'Show the version')
    .helpCommand('help [command]', 'Show the help of a command')
    .helpOption('-h, --help', 'Show this help')
    .showHelpAfterError('(pallmist --help shows what there is)')
    .exitOverride()
    .addHelpText('after', '\nExit status: 0 done, 1 problems found, 2 wrong usage, 3 service not reached.');
  for (const add of [
    addServe,
    addDemo,
    addCheck,
    addRead,
    addWrite,
    addPush,
    addPublish,
    addRename,
    addRecords,
    addPeople,
    addKeys,
    addAccess,
    addOutbox,
    addShort,
    addVisits,
  ])
    add(program);
  for (const command of program.commands) for (const each of [command, ...command.commands]) each.exitOverride().showHelpAfterError();
  const json = words.includes('--json');
  try {
    await program.parseAsync([...words]);
    return Number(process.exitCode ?? exit.done);
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? exit.done : exit.usage;
    const { status, message, data } = explain(error);
    const code = error instanceof PallmistError ? error.code : 'failed';
    if (json) process.stdout.write(JSON.stringify(data ?? { error: message, code }, null, 2) + '\n');
    else process.stderr.write(message + '\n');
    return status;
  }
}

function explain(error: unknown): { status: number; message: string; data?: unknown } {
  if (error instanceof CommandError) return error;
  if (error instanceof UnreachableError) return { status: exit.unreached, message: `${error.message} Start it with: pallmist serve` };
  if (error instanceof SlowServiceError) return { status: exit.unreached, message: error.message };
  if (error instanceof ApiError) {
    const problems = error.details.problems ?? [];
    return { status: exit.problems, message: [error.message, ...describeProblems(problems)].join('\n'), data: error.details };
  }
  if (error instanceof ProblemError) return { status: exit.problems, message: error.message, data: { problems: error.problems } };
  const { message, stack = message } = error instanceof Error ? error : new Error(String(error));
  // For people who work on Pallmist.
  const told = process.env['PALLMIST_LOG'] === 'debug' ? stack : `Pallmist failed: ${message} (PALLMIST_LOG=debug shows where.)`;
  return { status: exit.problems, message: told };
}
