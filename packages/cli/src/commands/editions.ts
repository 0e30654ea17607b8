import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addEditions(program: Command): void {
  withService(program.command('editions').argument('<app>', 'Name of the app'))
    .option('--bring-back <number>', 'Make the app file of this edition the draft again; the published edition stays until you publish')
    .option('--replace', 'With --bring-back: discard changes of the draft that are not published')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist editions quillmoor\n  pallmist editions quillmoor --bring-back 3 && pallmist publish quillmoor',
    )
    .action(async (app: string, options: ServiceOptions & { bringBack?: string; replace?: boolean }) => {
      const { bringBack } = options;
      const client = await clientFor(options);
      if (bringBack !== undefined) {
        if (!/^[1-9][0-9]*$/.test(bringBack)) throw new CommandError(exit.usage, '--bring-back is the number of an edition.');
        const { source } = await client.call('getEdition', { app, number: bringBack });
        const present = await client.call('getDraft', { app });
        const newest = (await client.call('listEditions', { app })).editions[0];
        const published = newest && (await client.call('getEdition', { app, number: String(newest.number) })).source;
        if (options.replace !== true && ![published, source].includes(present.source))
          throw new CommandError(
            exit.problems,
            `The draft of ${app} has changes that are not published. Publish them, pull them into a file, or use --replace, which discards them.`,
          );
        // What others change from here on is not overwritten unseen either.
        const draft = await client.call('pushDraft', { app }, { source, revision: present.revision });
        print(options.json, draft, () => [`The draft of ${app} is edition ${bringBack} again. pallmist publish ${app} makes it public.`]);
        return;
      }
      const { editions } = await client.call('listEditions', { app });
      print(options.json, { editions }, () =>
        editions.length === 0
          ? [`${app} is not published yet.`]
          : columns(
              editions.map(({ number, publishedAt, by, note }) => [
                String(number),
                publishedAt.slice(0, 16).replace('T', ' '),
                by ?? '',
                note ?? '',
              ]),
            ),
      );
    });
}
