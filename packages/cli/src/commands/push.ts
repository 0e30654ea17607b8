import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { checkAppFile, countProblems } from '@pallmist/core';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addPush(program: Command): void {
  withService(program.command('push').argument('<file>', 'An app file'))
    .description('Put an app file in the place of the service’s draft. A new app is made.')
    .option(
      '--with-data',
      'Also replace the records of each collection by its CSV file in the folder “data” beside the app file, and put the pictures of the folder “files” in place',
    )
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist push app.yaml\n  pallmist push app.yaml --with-data\nThe draft is not published by this; see pallmist publish.',
    )
    .action(async (file: string, options: ServiceOptions & { withData?: boolean }) => {
      const source = readFile(file);
      const { definition, problems } = checkAppFile(source);
      if (!definition) {
        throw new CommandError(exit.problems, describeProblems(problems, { name: file, text: source }).join('\n'), { problems });
      }
      const beside = options.withData === true ? { data: dataBeside(file, definition.collections ?? {}), files: filesBeside(file) } : {};
      const draft = await clientFor(options).call('pushDraft', { app: definition.app }, { source, ...beside });
      print(options.json, draft, () => [`${draft.app}: draft ${String(draft.revision)} is in place, ${countProblems(problems)}.`]);
    });
}

/** The CSV texts that the collections name, from the folder “data” beside the app file. */
export function dataBeside(file: string, collections: Record<string, { data?: string | undefined }>): Record<string, string> {
  const named = Object.entries(collections).filter((entry): entry is [string, { data: string }] => entry[1].data !== undefined);
  return Object.fromEntries(named.map(([name, { data }]) => [name, readFile(join(dirname(file), 'data', data))]));
}

/** The pictures in the folder “files” beside the app file, in base64. */
export function filesBeside(file: string): Record<string, string> {
  const folder = join(dirname(file), 'files');
  if (!existsSync(folder)) return {};
  const pictures = readdirSync(folder).filter((name) => /\.(?:svg|png|jpe?g|webp|gif|avif)$/.test(name));
  return Object.fromEntries(pictures.map((name) => [name, readFileSync(join(folder, name)).toString('base64')]));
}
