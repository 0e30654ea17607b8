import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { readWithProgress } from '../progress.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

type Format = 'csv' | 'json';

const formatOf = (file: string | undefined, given: string | undefined): Format => {
  const format = given ?? (file !== undefined && /\.(?:json|ndjson|jsonl)$/i.test(file) ? 'json' : 'csv');
  if (format !== 'csv' && format !== 'json') throw new CommandError(exit.usage, '--format is csv or json.');
  return format;
};

export function addRecords(program: Command): void {
  const records = program.command('records');
  withService(
    records
      .command('export')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('[file]', 'Where to write them; standard output when left out'),
  )
    .description('Export the records of a collection as CSV or JSON.')
    .option('--format <format>', 'csv or json (default: by the file’s extension)')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist records export quillmoor specimens specimens.csv\n  pallmist records export quillmoor specimens --format json | jq length',
    )
    .action(async (app: string, collection: string, file: string | undefined, options: ServiceOptions & { format?: string }) => {
      const content = await (await clientFor(options)).exportRecords(app, collection, formatOf(file, options.format));
      const readable = Readable.fromWeb(content);
      if (file === undefined) await pipeline(readable, process.stdout, { end: false });
      else {
        await pipeline(readable, createWriteStream(file));
        print(options.json, { file }, () => [`The records of ${collection} are in ${file}.`]);
      }
    });
  withService(
    records
      .command('import')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('<file>', 'A CSV file, or JSON with a record a line'),
  )
    .description('Add the records of a file to a collection, and update those with the same key.')
    .option('--format <format>', 'csv or json (default: by the file’s extension)')
    .option('--all', 'The file has all records: remove those that it does not have')
    .option('--replace', 'With --all: also remove and overwrite records that people have written, after an export')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist records import quillmoor specimens new-specimens.csv\n  pallmist records import quillmoor specimens specimens.csv --all',
    )
    .action(
      async (
        app: string,
        collection: string,
        file: string,
        options: ServiceOptions & { format?: string; all?: boolean; replace?: boolean },
      ) => {
        if (options.replace === true && options.all !== true) throw new CommandError(exit.usage, '--replace goes with --all.');
        const answer = await (
          await clientFor(options)
        ).importRecords(
          app,
          collection,
          { content: readWithProgress(file) },
          {
            format: formatOf(file, options.format),
            mode: options.all === true ? 'replace' : 'update',
            replace: options.replace === true,
          },
        );
        print(options.json, answer, () => [
          `${answer.rows.toLocaleString('en')} records are in ${collection}.`,
          ...answer.exports.map((written) => `What was there before is in ${written} on the service’s machine.`),
        ]);
      },
    );
}
