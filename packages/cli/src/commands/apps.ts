import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addApps(program: Command): void {
  withService(program.command('apps'))
    .option('--remove <app>', 'Remove an app with its drafts, editions, records, people and mails')
    .option('--yes', 'With --remove: really')
    .addHelpText('after', '\nExamples:\n  pallmist apps\n  pallmist backup && pallmist apps --remove shed --yes')
    .action(async (options: ServiceOptions & { remove?: string; yes?: boolean }) => {
      const { remove: app, yes, json } = options;
      const client = await clientFor(options);
      if (app !== undefined) {
        const { revision } = await client.call('getDraft', { app }, undefined);
        if (yes !== true)
          throw new CommandError(exit.usage, `This cannot be taken back: all records of ${app} go too. Add --yes, after a backup.`);
        const answer = await client.call('removeApp', { app }, undefined, { ifMatch: `"${String(revision)}"` });
        print(json, answer, () => [`${app} is removed.`]);
        return;
      }
      const answer = await client.call('listApps', {}, undefined);
      print(json, answer, () =>
        answer.apps.length === 0
          ? ['There are no apps yet. pallmist new writes one.']
          : columns(
              answer.apps.map(({ app: name, title, mount, edition, draft, problems }) => [
                name,
                title,
                mount === '' ? '/' : mount,
                edition === undefined ? 'not published' : `edition ${String(edition.number)}`,
                draft.changed ? 'the draft differs' : '',
                problems.errors > 0 ? `${String(problems.errors)} errors` : '',
              ]),
            ),
      );
    });
}
