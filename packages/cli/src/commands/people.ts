import { text } from 'node:stream/consumers';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface PeopleOptions extends ServiceOptions {
  name?: string;
  mail?: string;
  role?: string[];
  remove?: boolean;
}

export function addPeople(program: Command): void {
  withService(program.command('people').argument('<app>', 'Name of the app').argument('[login]', 'Login name of a person'))
    .option('--name <name>', 'Name that the pages show (default: the login name)')
    .option('--mail <address>', 'Mail address for links that sign the person in without a password')
    .option('--role <role...>', 'Roles of the person')
    .option('--remove', 'Remove the person and end their sessions')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist people quillmoor\n  pallmist people quillmoor ansa --name "Ansa Wetherel" < password.txt\n  pallmist people quillmoor ansa --remove\nWith a login name the password is read from standard input. A new password ends the sessions of the person.',
    )
    .action(async (app: string, login: string | undefined, options: PeopleOptions) => {
      const client = await clientFor(options);
      if (login === undefined) {
        const answer = await client.call('listPeople', { app }, undefined);
        print(options.json, answer, () =>
          answer.people.length === 0
            ? [`Nobody may sign in to ${app} yet.`]
            : columns(answer.people.map((person) => [person.login, person.name, person.roles.join(', '), person.mail ?? ''])),
        );
        return;
      }
      if (options.remove === true) {
        const answer = await client.call('removePerson', { app, login }, undefined);
        print(options.json, answer, () => [`${login} may not sign in to ${app} any more.`]);
        return;
      }
      const password = (await text(process.stdin)).replace(/\r?\n$/, '');
      if (password === '') throw new CommandError(exit.usage, 'Give the password on standard input.');
      const answer = await client.call(
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
