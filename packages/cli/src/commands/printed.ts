import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface PrintedOptions extends ServiceOptions {
  on?: string;
  remove?: string;
}

export function addPrinted(program: Command): void {
  withService(program.command('printed').argument('<app>', 'Name of the app').argument('[address]', 'An address that is printed'))
    .option('--on <text>', 'What it is printed on')
    .option('--remove <id>', 'Forget a printed address')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist printed quillmoor\n  pallmist printed quillmoor "/garden/specimens/QM-0412" --on "Plant labels, spring 2026"\nPublishing cannot change what a printed address means: such a finding can only be repaired.',
    )
    .action(async (app: string, address: string | undefined, { on, remove, ...options }: PrintedOptions) => {
      const client = await clientFor(options);
      if (remove !== undefined) {
        const done = await client.call('removePrinted', { app, id: remove });
        print(options.json, done, () => [`${remove} is forgotten.`]);
        return;
      }
      if (address !== undefined && on === undefined)
        throw new CommandError(exit.usage, 'Say with --on what the address is printed on: the next builder has to know.');
      const { printed } =
        address === undefined
          ? await client.call('getLinks', { app })
          : await client.call('addPrinted', { app }, { address, note: on ?? '' });
      print(options.json, { printed }, () =>
        printed.length === 0
          ? ['No printed address is noted.']
          : columns(printed.map(({ id, address: at, note, at: when }) => [id, when.slice(0, 10), at, note])),
      );
    });
}
