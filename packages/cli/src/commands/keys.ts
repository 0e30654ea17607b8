import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addKeys(program: Command): void {
  withService(program.command('keys'))
    .option('--rotate', 'Create a key for new values; older keys still open the values that they sealed')
    .option('--forget <id>', 'Forget an older key; addresses with values that it sealed stop working')
    .addHelpText('after', '\nExamples:\n  pallmist keys\n  pallmist keys --rotate\n  pallmist keys --forget 3f9a0c11d2e4')
    .action(async (options: ServiceOptions & { rotate?: boolean; forget?: string }) => {
      if (options.rotate === true && options.forget !== undefined)
        throw new CommandError(exit.usage, 'Give either --rotate or --forget: first the one, then the other.');
      const client = await clientFor(options);
      if (options.rotate === true) await client.call('rotateKeys', {}, undefined);
      if (options.forget !== undefined) await client.call('forgetKey', { id: options.forget }, undefined);
      const answer = await client.call('listKeys', {}, undefined);
      print(options.json, answer, () =>
        columns(
          answer.keys.map(({ id, madeAt, current }) => [
            id,
            `made ${madeAt.slice(0, 16).replace('T', ' ')}`,
            current ? 'seals and opens' : 'opens',
          ]),
        ),
      );
    });
}
