import { writeFileSync } from 'node:fs';
import { checkAppFile, countProblems, mayPublish, mendSource, type Problem } from '@pallmist/core';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addCheck(program: Command): void {
  withService(program.command('check').argument('[file]', 'An app file'))
    .description('Find everything that is wrong in an app file, or in the draft that a service has.')
    .option('--app <name>', 'Check the draft of this app in the service')
    .option('--mend', 'Change the file wherever it is known how, then check it again')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist check app.yaml\n  pallmist check app.yaml --json\n  pallmist check app.yaml --mend\n  pallmist check --app quillmoor',
    )
    .action(async (file: string | undefined, options: CheckOptions) => {
      const mended = options.mend === true ? mendFile(file) : [];
      const { name, text, problems } = await toCheck(file, options);
      const lines = () => [...describeProblems(problems, { name, text }), `${name}: ${countProblems(problems)}`];
      print(options.json, { file: name, publishable: mayPublish(problems), mended, problems }, () => [
        ...mended.map((problem) => `mended: ${problem.message}`),
        ...lines(),
      ]);
      process.exitCode = mayPublish(problems) ? exit.done : exit.problems;
    });
}

type CheckOptions = ServiceOptions & { app?: string; mend?: boolean };

/** Writes a file again with its problems mended. @returns those that were */
function mendFile(file: string | undefined): Problem[] {
  if (file === undefined) throw new CommandError(exit.usage, 'Only a file can be mended; name one.');
  const { source, mended } = mendSource(readFile(file));
  if (mended.length > 0) writeFileSync(file, source);
  return mended;
}

async function toCheck(file: string | undefined, options: CheckOptions) {
  if (file !== undefined) {
    const text = readFile(file);
    return { name: file, text, problems: checkAppFile(text).problems };
  }
  if (options.app === undefined) throw new CommandError(exit.usage, 'Name an app file, or an app with --app.');
  const { source } = await clientFor(options).call('getDraft', { app: options.app });
  return { name: options.app, text: source, problems: checkAppFile(source).problems };
}
