import { text } from 'node:stream/consumers';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addPerson(program: Command): void {
  withService(program.command('person').argument('<app>', 'Name of the app').argument('<login>', 'The name to sign in with'))
    .description('Let a person sign in to an app, or give them a new password. The password is read from standard input.')
    .option('--name <name>', 'Their name as the pages show it; the login when left out')
    .option('--mail <address>', 'Where links go that let them in without the password')
    .option('--role <role...>', 'Roles they have')
    .addHelpText('after', '\nExample:\n  pallmist person quillmoor ansa --name "Ansa Wetherel" < password.txt')
    .action(async (app: string, login: string, options: ServiceOptions & { name?: string; mail?: string; role?: string[] }) => {
      const password = (await text(process.stdin)).replace(/\r?\n$/, '');
      if (password.length < 8) throw new CommandError(exit.usage, 'A password has at least 8 characters; give it on standard input.');
      const answer = await clientFor(options).call(
        'putPerson',
        { app, login },
        {
          name: options.name ?? login,
          password,
          roles: options.role ?? [],
          ...(options.mail === undefined ? {} : { mail: options.mail }),
        },
      );
      print(options.json, answer, () => [`${login} may sign in to ${app}.`]);
    });
}
