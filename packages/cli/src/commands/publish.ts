import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface PublishOptions extends ServiceOptions {
  note?: string;
  consent?: string[];
  why?: string;
}

export function addPublish(program: Command): void {
  withService(program.command('publish').argument('<app>', 'Name of the app'))
    .option('--note <text>', 'A note for the list of editions')
    .option('--consent <findings...>', 'Agree to these findings of “pallmist rehearse”')
    .option('--why <text>', 'Why you agree; kept with the edition')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist publish quillmoor\n  pallmist publish quillmoor --consent 1f0c9a72be --why "The leaflet was never printed"',
    )
    .action(async (app: string, options: PublishOptions) => {
      const { note, why, consent = [] } = options;
      if (why !== undefined && consent.length === 0) throw new CommandError(exit.usage, '--why goes with --consent.');
      const consents = consent.map((finding) => ({ finding, ...(why === undefined ? {} : { why }) }));
      const published = await (await clientFor(options)).call('publish', { app }, { ...(note === undefined ? {} : { note }), consents });
      print(options.json, published, () => [
        `${app}: edition ${String(published.edition)} is served at ${options.service.replace(/\/$/, '')}${published.mount}`,
      ]);
    });
}
