import { writeFileSync } from 'node:fs';
import { checkAppFile, countProblems, describeFix, mayPublish, fixSource, type Problem } from '@pallmist/app';
import { Option, type Command } from 'commander';
import { appFileFor, appFileHelp, noApp } from '../app-file.ts';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addCheck(program: Command): void {
  withService(program.command('check').argument('[file]', appFileHelp))
    .option('--app <name>', 'Check the draft of this app')
    .option('--fix', 'Fix what can be fixed in the file without taking anything out of it, rewrite keys of older files, and check again')
    // Scripts that were written for version 0.1 use this name.
    .addOption(new Option('--mend', 'The former name of --fix').hideHelp())
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist check app.yaml\n  pallmist check app.yaml --json\n  pallmist check app.yaml --fix\n  pallmist check --app quillmoor',
    )
    .action(async (given: string | undefined, options: CheckOptions) => {
      const file = appFileFor(given, options.app);
      const fixed = options.fix === true || options.mend === true ? fixFile(file) : [];
      const { name, text, problems } = await toCheck(file, options);
      const lines = () => [...describeProblems(problems, { name, text }), `${name}: ${countProblems(problems)}`];
      print(options.json, { file: name, publishable: mayPublish(problems), fixed, problems }, () => [
        ...fixed.map(({ message, fix = [] }) => `fixed: ${message}${fix.length === 0 ? '' : ` ${describeFix(fix)}`}`),
        ...lines(),
      ]);
      process.exitCode = mayPublish(problems) ? exit.done : exit.problems;
    });
}

type CheckOptions = ServiceOptions & { app?: string; fix?: boolean; mend?: boolean };

/** Writes a file again with its problems fixed. @returns those that were */
function fixFile(file: string | undefined): Problem[] {
  if (file === undefined) throw new CommandError(exit.usage, 'Only a file can be fixed; name one.');
  const { source, fixed } = fixSource(readFile(file));
  if (fixed.length > 0) writeFileSync(file, source);
  return fixed;
}

async function toCheck(file: string | undefined, options: CheckOptions) {
  if (file !== undefined) {
    const text = readFile(file);
    return { name: file, text, problems: checkAppFile(text).problems };
  }
  if (options.app === undefined) throw noApp('');
  const { source } = await (await clientFor(options)).call('getDraft', { app: options.app });
  return { name: options.app, text: source, problems: checkAppFile(source).problems };
}
