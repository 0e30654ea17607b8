import { readTexts, writeAddress, type Problem } from '@pallmist/app/address';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems, type ShownProblem } from '../problems.ts';
import { appInFile, clientFor, withService, type ServiceOptions } from '../target.ts';

export function addWrite(program: Command): void {
  withService(program.command('write').argument('<page>', 'Name of the page').argument('[values...]', 'Its values, each as name=value'))
    .option('--file <file>', 'Use this app file')
    .option('--app <name>', 'Use the published app of the service')
    .option('--sharing', 'Leave out parameters that are not for sharing')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist write specimen specimen=QM-0412 tab=care --file app.yaml\n  pallmist write specimens "q=café & rose" sort=-name --app quillmoor',
    )
    .action(async (page: string, pairs: string[], options: WriteOptions) => {
      const { address, problems } = await write(page, textsIn(pairs), options);
      print(options.json, { address, problems }, () => (address === undefined ? [] : [address]));
      if (options.json !== true && problems.length > 0) process.stderr.write(describeProblems(problems).join('\n') + '\n');
      process.exitCode = address === undefined ? exit.problems : exit.done;
    });
}

type WriteOptions = ServiceOptions & { file?: string; app?: string; sharing?: boolean };

async function write(
  page: string,
  texts: Record<string, string>,
  options: WriteOptions,
): Promise<{ address?: string; problems: readonly ShownProblem[] }> {
  const sharing = options.sharing ?? false;
  if (options.file !== undefined) {
    const { compiled } = await appInFile(options.file);
    const read = readTexts(compiled, page, texts);
    // Both kinds of problems at once: texts that cannot be read, and what the address still lacks.
    const written = writeAddress(compiled, page, read.values, { forSharing: sharing });
    const refused = new Set(read.problems.map(({ parameter }) => parameter));
    const problems: Problem[] = [
      ...read.problems,
      ...written.problems.filter(({ parameter }) => parameter === undefined || !refused.has(parameter)),
    ];
    return read.problems.length === 0 && written.address !== undefined ? { address: written.address, problems } : { problems };
  }
  if (options.app === undefined) throw new CommandError(exit.usage, 'Name an app file with --file, or a published app with --app.');
  return (await clientFor(options)).call('writeAddress', { app: options.app }, { page, texts, sharing });
}

function textsIn(pairs: readonly string[]): Record<string, string> {
  const texts: Record<string, string> = {};
  for (const pair of pairs) {
    const equals = pair.indexOf('=');
    if (equals < 1) throw new CommandError(exit.usage, `“${pair}” is not a value; write it as name=value.`);
    const name = pair.slice(0, equals);
    if (Object.hasOwn(texts, name)) throw new CommandError(exit.usage, `“${name}” is given twice.`);
    texts[name] = pair.slice(equals + 1);
  }
  return texts;
}
