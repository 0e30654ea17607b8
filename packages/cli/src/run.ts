import { Command, CommanderError } from 'commander';
import { addTo, listedCommands, loadAll } from './commands/list.ts';
import { CommandError, exit } from './exit.ts';
import { version } from './version.ts';

/** Commands whose output tells of all the others. */
const needAll = ['completion', 'manual'];

/** Runs one command line. @returns the exit status */
export async function run(words: readonly string[]): Promise<number> {
  // A reader that has seen enough, such as “head”, ends the command without a word.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error;
    process.exit(exit.done);
  });
  const [node = '', script = '', ...given] = words;
  const json = given.includes('--json');
  try {
    const program = await programFor(given);
    await program.parseAsync([node, script, ...jsonLast(given)]);
    return Number(process.exitCode ?? exit.done);
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? exit.done : exit.usage;
    const { status, message, code, data } = await explain(error);
    if (json) process.stdout.write(JSON.stringify(data ?? { error: message, code }, null, 2) + '\n');
    else process.stderr.write(message + '\n');
    return status;
  }
}

/** The command with the part that is asked for; all others are only listed. */
async function programFor(given: readonly string[]): Promise<Command> {
  const program = new Command('pallmist')
    .description('Pallmist keeps the state of a page in its address. Reads and writes addresses; checks, publishes and serves apps.')
    .version(version, '-V, --version', 'Show the version')
    .helpCommand('help [command]', 'Show the help of a command')
    .helpOption('-h, --help', 'Show this help')
    .showHelpAfterError('(pallmist --help shows what there is)')
    .exitOverride()
    .addHelpText(
      'after',
      '\nEvery command takes --json and then prints JSON for programs; a file named “-” is standard input.\nExit status: 0 done, 1 problems found, 2 wrong usage, 3 service not reached.',
    );
  const words = given.filter((word) => !word.startsWith('-'));
  const asked = words[0] === 'help' ? words[1] : words[0];
  if (asked !== undefined && needAll.includes(asked)) await loadAll(program);
  else
    for (const listed of listedCommands) {
      if (asked !== undefined && [listed.name, listed.alias].includes(asked)) await addTo(program, listed);
      else program.command(listed.name).description(listed.summary).helpGroup(`${listed.group}:`);
    }
  for (const command of program.commands) for (const each of [command, ...command.commands]) each.exitOverride().showHelpAfterError();
  return program;
}

/** `--json` may stand anywhere, also before the command. */
const jsonLast = (given: readonly string[]): string[] =>
  given.includes('--json') ? [...given.filter((word) => word !== '--json'), '--json'] : [...given];

interface Explained {
  status: number;
  message: string;
  code: string;
  data?: unknown;
}

async function explain(error: unknown): Promise<Explained> {
  if (error instanceof CommandError) return error;
  // Loaded only where something went wrong: every command begins sooner without.
  const { ApiError, SlowServiceError, UnreachableError } = await import('@pallmist/api');
  const { PallmistError, ProblemError } = await import('@pallmist/app/address');
  const { describeProblems } = await import('./problems.ts');
  const code = error instanceof PallmistError ? error.code : 'failed';
  if (error instanceof UnreachableError) return { status: exit.unreached, message: `${error.message} Start it with: pallmist serve`, code };
  if (error instanceof SlowServiceError) return { status: exit.unreached, message: error.message, code };
  if (error instanceof ApiError) {
    const problems = error.details.problems ?? [];
    // Skip the summary if it only repeats the problems, which have their places.
    const repeats = problems.length > 0 && problems.every(({ message }) => error.message.includes(message));
    const lines = [...(repeats ? [] : [error.message]), ...describeProblems(problems)];
    return { status: exit.problems, message: lines.join('\n'), code, data: error.details };
  }
  if (error instanceof ProblemError) return { status: exit.problems, message: error.message, code, data: { problems: error.problems } };
  const { message, stack = message } = error instanceof Error ? error : new Error(String(error));
  // For people who work on Pallmist.
  const told = process.env['PALLMIST_LOG'] === 'debug' ? stack : `Pallmist failed: ${message} (PALLMIST_LOG=debug shows where.)`;
  return { status: exit.problems, message: told, code };
}
