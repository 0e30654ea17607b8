import { createReadStream, existsSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { DraftChange, RecordFile } from '@pallmist/api';
import { checkAppFile, countProblems } from '@pallmist/app';
import type { Command } from 'commander';
import { appFileHelp, neededAppFile } from '../app-file.ts';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { readWithProgress } from '../progress.ts';
import { SeenDrafts } from '../seen-drafts.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addPush(program: Command): void {
  withService(program.command('push').argument('[file]', appFileHelp))
    .option(
      '--with-data',
      'Also put the records of the CSV files in the folder “data” beside the app file, and the images of the folder “images”, in place; refused where records would be lost',
    )
    .option(
      '--replace',
      'Discard what others changed in the draft since your last pull or push, and say what it was; with --with-data also remove and overwrite records although people have written them, after an export beside the database',
    )
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist push app.yaml\n  pallmist push app.yaml --with-data\n' +
        'The folder “.pallmist” beside the file keeps which draft the file was made from. Where others have changed the draft since,\n' +
        'the push is refused and says what they changed.\nThe draft is not published by this; see pallmist publish.',
    )
    .action(async (given: string | undefined, options: ServiceOptions & { withData?: boolean; replace?: boolean }) => {
      const file = neededAppFile(given);
      const source = readFile(file);
      const { definition, problems } = checkAppFile(source);
      if (!definition) {
        throw new CommandError(exit.problems, describeProblems(problems, { name: file, text: source }).join('\n'), { problems });
      }
      const { app } = definition;
      const client = await clientFor(options);
      const seen = new SeenDrafts(file, options.service, app);
      const texts = { source, revision: seen.get()?.revision ?? 0, replace: options.replace === true };
      const draft =
        options.withData === true
          ? await client.pushWithRecords(app, texts, [...imagesBeside(file), ...recordsBeside(file, definition.collections ?? {})])
          : await client.call('pushDraft', { app }, texts);
      const notKept = seen.keep(draft.revision, source);
      print(options.json, draft, () => [
        `${app}: draft ${String(draft.revision)} is in place, ${countProblems(problems)}.`,
        ...discardedLines(draft.discarded ?? []),
        ...(notKept === undefined ? [] : [notKept]),
      ]);
    });
}

/** What others had changed, and --replace has overwritten. */
function discardedLines(changes: readonly DraftChange[]): string[] {
  if (changes.length === 0) return [];
  return [
    'Discarded:',
    ...columns(changes.map(({ revision, at, by, what }) => [`  ${String(revision)}`, by, at.slice(0, 16).replace('T', ' '), what])),
  ];
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
