import { existsSync, writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { digestOf, SeenDrafts } from '../seen-drafts.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addPull(program: Command): void {
  withService(
    program.command('pull').argument('<app>', 'Name of the app').argument('[file]', 'Where to write it; standard output when left out'),
  )
    .option('--edition <number>', 'Take this edition instead of the draft')
    .option('--replace', 'Overwrite the file although it has changes that were not pushed; they are kept beside it')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist pull quillmoor app.yaml\n  pallmist pull quillmoor --edition 3 | diff - app.yaml\n' +
        'A file that you have changed since the last pull or push is not overwritten.',
    )
    .action(async (app: string, file: string | undefined, options: ServiceOptions & { edition?: string; replace?: boolean }) => {
      const { edition } = options;
      if (edition !== undefined && !/^[1-9][0-9]*$/.test(edition))
        throw new CommandError(exit.usage, '--edition is the number of an edition. pallmist editions lists them.');
      const client = await clientFor(options);
      const draft = edition === undefined ? await client.call('getDraft', { app }) : undefined;
      const { source } = draft ?? (await client.call('getEdition', { app, number: edition ?? '' }));
      if (file === undefined || file === '-') {
        if (options.json === true) print(true, { app, source }, () => []);
        else process.stdout.write(source);
        return;
      }
      const seen = new SeenDrafts(file, options.service, app);
      const kept = keepOwnChanges(file, source, seen, options.replace === true);
      writeFileSync(file, source);
      const notKept = draft === undefined ? undefined : seen.keep(draft.revision, source);
      print(
        options.json,
        { app, file, ...(draft === undefined ? {} : { revision: draft.revision }), ...(kept === undefined ? {} : { kept }) },
        () => [
          `${file} is the ${edition === undefined ? 'draft' : `edition ${edition}`} of ${app}.`,
          ...(kept === undefined ? [] : [`What it was before is in ${kept}.`]),
          ...(notKept === undefined ? [] : [notKept]),
        ],
      );
    });
}

/**
 * Keeps the changes of a file that a pull would overwrite.
 * @returns the file into which they were written, if there were any
 * @throws CommandError where the file has changes, and they are not to be overwritten
 */
function keepOwnChanges(file: string, source: string, seen: SeenDrafts, replace: boolean): string | undefined {
  if (!existsSync(file)) return undefined;
  const present = readFile(file);
  if (present === source || digestOf(present) === seen.get()?.digest) return undefined;
  if (!replace)
    throw new CommandError(
      exit.problems,
      `${file} has changes that were not pushed, so it is not overwritten. Push them, pull into another file, or use --replace, which keeps them beside it.`,
    );
  const kept = freeName(file);
  writeFileSync(kept, present);
  return kept;
}

/** A name beside a file that no file has. */
function freeName(file: string): string {
  for (let number = 1; ; number += 1) {
    const name = `${file}.before-pull${number === 1 ? '' : `-${String(number)}`}`;
    if (!existsSync(name)) return name;
  }
}
