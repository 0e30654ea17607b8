import type { Command } from 'commander';
import { print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addPublish(program: Command): void {
  withService(program.command('publish').argument('<app>', 'Name of the app'))
    .addHelpText('after', '\nExample:\n  pallmist publish quillmoor')
    .action(async (app: string, options: ServiceOptions) => {
      const published = await (await clientFor(options)).call('publish', { app }, {});
      print(options.json, published, () => [
        `${app}: edition ${String(published.edition)} is served at ${options.service.replace(/\/$/, '')}${published.mount}`,
      ]);
    });
}
