import { createReadStream, existsSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { RecordFile } from '@pallmist/api';
import { checkAppFile, countProblems } from '@pallmist/app';
import type { Command } from 'commander';
import { appFileHelp, neededAppFile } from '../app-file.ts';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { readWithProgress } from '../progress.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addPush(program: Command): void {
  withService(program.command('push').argument('[file]', appFileHelp))
    .option(
      '--with-data',
      'Also put the records of the CSV files in the folder “data” beside the app file, and the images of the folder “images”, in place; refused where records would be lost',
    )
    .option(
      '--replace',
      'With --with-data: remove and overwrite records although people have written them, after an export beside the database',
    )
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist push app.yaml\n  pallmist push app.yaml --with-data\nThe draft is not published by this; see pallmist publish.',
    )
    .action(async (given: string | undefined, options: ServiceOptions & { withData?: boolean; replace?: boolean }) => {
      if (options.replace === true && options.withData !== true) throw new CommandError(exit.usage, '--replace goes with --with-data.');
      const file = neededAppFile(given);
      const source = readFile(file);
      const { definition, problems } = checkAppFile(source);
      if (!definition) {
        throw new CommandError(exit.problems, describeProblems(problems, { name: file, text: source }).join('\n'), { problems });
      }
      const client = await clientFor(options);
      const draft =
        options.withData === true
          ? await client.pushWithRecords(definition.app, { source, replace: options.replace === true }, [
              ...imagesBeside(file),
              ...recordsBeside(file, definition.collections ?? {}),
            ])
          : await client.call('pushDraft', { app: definition.app }, { source });
      print(options.json, draft, () => [`${draft.app}: draft ${String(draft.revision)} is in place, ${countProblems(problems)}.`]);
    });
}

/** The CSV files that the collections name, in the folder “data” beside the app file. */
export function recordsBeside(file: string, collections: Record<string, { data?: string | undefined }>): RecordFile[] {
  return Object.entries(collections).flatMap(([name, { data }]) => {
    if (data === undefined) return [];
    const path = join(dirname(file), 'data', data);
    if (!existsSync(path)) throw new CommandError(exit.usage, `${path} cannot be read: there is no such file.`);
    return [{ field: `records.${name}`, name: data, type: 'text/csv', content: readWithProgress(path) }];
  });
}

/** The images in the folder “images” beside the app file, or in “files”, as the folder was called in the past. */
export function imagesBeside(file: string): RecordFile[] {
  const folder = ['images', 'files'].map((name) => join(dirname(file), name)).find((path) => existsSync(path));
  if (folder === undefined) return [];
  const images = readdirSync(folder).filter((name) => /\.(?:svg|png|jpe?g|webp|gif|avif)$/.test(name));
  return images.map((name) => ({
    field: `files.${name}`,
    name,
    type: 'application/octet-stream',
    content: createReadStream(join(folder, name)),
  }));
}
