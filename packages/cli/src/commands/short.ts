import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface ShortOptions extends ServiceOptions {
  days?: string;
  withdraw?: string;
}

export function addShort(program: Command): void {
  withService(program.command('short').argument('<app>', 'Name of the app').argument('[address]', 'The address to make a short one for'))
    .option('--days <days>', 'Days until it expires (default: never)')
    .option('--withdraw <code>', 'Withdraw the short address with this code')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist short quillmoor\n  pallmist short quillmoor "/garden/specimens?q=fern&zones=fog-desert,tea-slope" --days 90\n  pallmist short quillmoor --withdraw 7hk2mwx\nA QR code of any address of an app is at ~qr.svg?of=ADDRESS and ~qr.png?of=ADDRESS below its mount.',
    )
    .action(async (app: string, address: string | undefined, options: ShortOptions) => {
      const client = await clientFor(options);
      const days = options.days === undefined ? undefined : Number(options.days);
      if (days !== undefined && !(days >= 0.01 && days <= 3650))
        throw new CommandError(exit.usage, '--days is a number from 0.01 to 3650.');
      if (options.withdraw !== undefined) {
        const answer = await client.call('withdrawShort', { app, code: options.withdraw }, undefined);
        print(options.json, answer, () => [`${options.withdraw ?? ''} no longer works.`]);
        return;
      }
      const answer =
        address === undefined
          ? await client.call('listShort', { app }, undefined)
          : await client.call('makeShort', { app }, { address, ...(days === undefined ? {} : { days }) });
      print(options.json, answer, () =>
        answer.shortAddresses.length === 0
          ? ['There are no short addresses yet.']
          : columns(
              answer.shortAddresses.map(({ short, address: to, endsAt, printedOn }) => [
                short,
                endsAt === null ? 'for ever' : `until ${endsAt.slice(0, 10)}`,
                to,
                printedOn === null ? '' : `printed on ${printedOn}`,
              ]),
            ),
      );
    });
}
