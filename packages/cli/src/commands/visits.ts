import type { Command } from 'commander';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addVisits(program: Command): void {
  withService(program.command('visits').argument('<app>', 'Name of the app'))
    .addHelpText('after', '\nExample:\n  pallmist visits quillmoor')
    .action(async (app: string, options: ServiceOptions) => {
      const answer = await (await clientFor(options)).call('listVisits', { app }, undefined);
      const totals = new Map<string, { came: number; formsSent: number }>();
      for (const { parameter, value, came, formsSent } of answer.visits) {
        const name = `${parameter}=${value}`;
        const before = totals.get(name) ?? { came: 0, formsSent: 0 };
        totals.set(name, { came: before.came + came, formsSent: before.formsSent + formsSent });
      }
      print(options.json, answer, () =>
        totals.size === 0
          ? ['Nobody has come with anything to remember yet.']
          : columns([
              ['', 'came', 'forms sent'],
              ...[...totals].map(([name, { came, formsSent }]) => [name, String(came), String(formsSent)]),
            ]),
      );
    });
}
