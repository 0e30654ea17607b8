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
    .description('List the people who may sign in to an app; let a person in or give them a new password; remove a person.')
    .option('--name <name>', 'Their name as the pages show it; the login name when left out')
    .option('--mail <address>', 'Where links go that let them in without the password')
    .option('--role <role...>', 'Roles they have')
    .option('--remove', 'Let the person sign in no more; their sessions end')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist people quillmoor\n  pallmist people quillmoor ansa --name "Ansa Wetherel" < password.txt\n  pallmist people quillmoor ansa --remove\nWith a login name the password is read from standard input. A new password ends the sessions of the person.',
    )
    .action(async (app: string, login: string | undefined, options: PeopleOptions) => {
      const client = clientFor(options);
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
