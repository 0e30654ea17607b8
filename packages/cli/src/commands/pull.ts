import { writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addPull(program: Command): void {
  withService(
    program.command('pull').argument('<app>', 'Name of the app').argument('[file]', 'Where to write it; standard output when left out'),
  )
    .option('--edition <number>', 'Take this edition instead of the draft')
    .addHelpText('after', '\nExamples:\n  pallmist pull quillmoor app.yaml\n  pallmist pull quillmoor --edition 3 | diff - app.yaml')
    .action(async (app: string, file: string | undefined, options: ServiceOptions & { edition?: string }) => {
      const { edition } = options;
      if (edition !== undefined && !/^[1-9][0-9]*$/.test(edition))
        throw new CommandError(exit.usage, '--edition is the number of an edition. pallmist editions lists them.');
      const client = await clientFor(options);
      const { source } =
        edition === undefined ? await client.call('getDraft', { app }) : await client.call('getEdition', { app, number: edition });
      if (file === undefined) {
        if (options.json === true) print(true, { app, source }, () => []);
        else process.stdout.write(source);
        return;
      }
      writeFileSync(file, source);
      print(options.json, { app, file }, () => [`${file} is the ${edition === undefined ? 'draft' : `edition ${edition}`} of ${app}.`]);
    });
}
