import { checkAppFile, countProblems, mayPublish } from '@pallmist/core';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addCheck(program: Command): void {
  withService(program.command('check').argument('[file]', 'An app file'))
    .description('Find everything that is wrong in an app file, or in the draft that a service has.')
    .option('--app <name>', 'Check the draft of this app in the service')
    .addHelpText('after', '\nExamples:\n  pallmist check app.yaml\n  pallmist check app.yaml --json\n  pallmist check --app quillmoor')
    .action(async (file: string | undefined, options: ServiceOptions & { app?: string }) => {
      const { name, text, problems } = await toCheck(file, options);
      const lines = () => [...describeProblems(problems, { name, text }), `${name}: ${countProblems(problems)}`];
      print(options.json, { file: name, publishable: mayPublish(problems), problems }, lines);
      process.exitCode = mayPublish(problems) ? exit.done : exit.problems;
    });
}

async function toCheck(file: string | undefined, options: ServiceOptions & { app?: string }) {
  if (file !== undefined) {
    const text = readFile(file);
    return { name: file, text, problems: checkAppFile(text).problems };
  }
  if (options.app === undefined) throw new CommandError(exit.usage, 'Name an app file, or an app with --app.');
  const { source } = await clientFor(options).call('getDraft', { app: options.app });
  return { name: options.app, text: source, problems: checkAppFile(source).problems };
}
