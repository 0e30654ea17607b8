import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Command } from 'commander';
import { declareGone } from '../declare-gone.ts';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
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
      if (file === undefined || file === '-') await pipeline(readable, process.stdout, { end: false });
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
      .argument('<file>', 'A CSV file, or JSON with a record a line; “-” for standard input'),
  )
    .description('Add the records of a file to a collection, and update those with the same key.')
    .option('--format <format>', 'csv or json (default: by the file’s extension)')
    .option('--all', 'The file has all records: remove those that it does not have')
    .option('--replace', 'With --all: also remove and overwrite records that people have written, after an export')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist records import quillmoor specimens new-specimens.csv\n  pallmist records import quillmoor specimens specimens.csv --all\n  pallmist records export quillmoor specimens - | pallmist records import quillmoor specimens -',
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
  withService(
    records
      .command('list')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('[conditions...]', 'FIELD=value, or FIELD.OPERATOR=value'),
  )
    .description('List records that fit conditions, with the operators of reads: contains, oneOf, within, before, after, empty and so on.')
    .option('--sort <fields>', 'Fields, with commas between; “-” in front for descending')
    .option('--limit <number>', 'How many at most, up to 500', '50')
    .option('--after <place>', 'Go on where the list before ended, as its “next” says')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist records list quillmoor specimens house=palm --sort -planted --limit 5\n  pallmist records list quillmoor specimens planted.within=2020-01-01.. --json',
    )
    .action(
      async (
        app: string,
        collection: string,
        conditions: string[],
        options: ServiceOptions & { sort?: string; limit: string; after?: string },
      ) => {
        const query = Object.fromEntries(conditions.map(splitPair));
        const { sort, limit, after } = options;
        const answer = await (
          await clientFor(options)
        ).call('listRecords', {
          ...query,
          ...{ app, collection, limit },
          ...(sort === undefined ? {} : { sort }),
          ...(after === undefined ? {} : { after }),
        });
        print(options.json, answer, () => [...asTable(answer.records), ...rest(answer)]);
      },
    );
  withService(
    records
      .command('show')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('<key>', 'Key of the record'),
  )
    .description('Show one record.')
    .action(async (app: string, collection: string, key: string, options: ServiceOptions) => {
      const answer = await (await clientFor(options)).call('getRecord', { app, collection, key });
      print(options.json, answer, () => columns(Object.entries(answer.record).map(([field, value]) => [field, textOf(value)])));
    });
  withService(
    records
      .command('save')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('<values...>', 'FIELD=value; nothing after “=” empties the field'),
  )
    .description('Add a record, or change the one that --key names.')
    .option('--key <key>', 'The record to change')
    .addHelpText('after', '\nExample:\n  pallmist records save quillmoor specimens house=fern --key QM-0412')
    .action(async (app: string, collection: string, values: string[], options: ServiceOptions & { key?: string }) => {
      const record = Object.fromEntries(values.map(splitPair).map(([field, text]) => [field, text === '' ? null : text]));
      const client = await clientFor(options);
      const answer =
        options.key === undefined
          ? await client.call('addRecord', { app, collection }, { record })
          : await client.call('changeRecord', { app, collection, key: options.key }, { record });
      print(options.json, answer, () => [`${answer.key} is saved.`]);
    });
  withService(
    records
      .command('remove')
      .argument('<app>', 'Name of the app')
      .argument('<collection>', 'Name of the collection')
      .argument('<key>', 'Key of the record'),
  )
    .description('Remove one record.')
    .option('--gone [sentence]', 'Declare it as gone in the draft: from the next publishing on, its links say so, with this sentence')
    .addHelpText('after', '\nExample:\n  pallmist records remove quillmoor specimens QM-0412 --gone "The storm of 2026 took this palm."')
    .action(async (app: string, collection: string, key: string, options: ServiceOptions & { gone?: string | true }) => {
      const client = await clientFor(options);
      const { record } = await client.call('getRecord', { app, collection, key });
      const answer = await client.call('removeRecord', { app, collection, key });
      const texts = Object.fromEntries(Object.entries(record).map(([field, value]) => [field, textOf(value)]));
      const { gone } = options;
      const declared =
        gone === undefined ? undefined : await declareGone(client, { app, collection, key, texts }, gone === true ? '' : gone);
      print(options.json, { ...answer, ...declared }, () => [`${key} is removed.`, ...(declared === undefined ? [] : [declared.words])]);
    });
}

function splitPair(text: string): [string, string] {
  const at = text.indexOf('=');
  if (at < 1) throw new CommandError(exit.usage, `“${text}” is not FIELD=value.`);
  return [text.slice(0, at), text.slice(at + 1)];
}

const textOf = (value: string | number | boolean | null | undefined) => (value === null || value === undefined ? '' : String(value));
/** Characters of a cell. */
const widest = 40;

function asTable(rows: readonly Record<string, string | number | boolean | null>[]): string[] {
  const fields = Object.keys(rows[0] ?? {});
  const cut = (text: string) => {
    const line = text.replaceAll(/\s+/g, ' ');
    return [...line].length > widest ? `${[...line].slice(0, widest - 1).join('')}…` : line;
  };
  return columns([fields, ...rows.map((row) => fields.map((field) => cut(textOf(row[field]))))]);
}

function rest({ records, total, next }: { records: readonly unknown[]; total: number; next: string | null }): string[] {
  if (total === 0) return ['No record fits.'];
  return next === null ? [] : ['', `${String(records.length)} of ${total.toLocaleString('en')}. Go on with --after ${next}`];
}
