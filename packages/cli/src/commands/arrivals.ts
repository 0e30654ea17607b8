import type { Command } from 'commander';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addArrivals(program: Command): void {
  withService(program.command('arrivals').argument('<app>', 'Name of the app'))
    .description('How many came to an app, and how many sent a form, by what they came with: a campaign, a leaflet’s code.')
    .addHelpText('after', '\nExample:\n  pallmist arrivals quillmoor')
    .action(async (app: string, options: ServiceOptions) => {
      const answer = await clientFor(options).call('listArrivals', { app }, undefined);
      const totals = new Map<string, { arrivals: number; submissions: number }>();
      for (const { parameter, value, arrivals, submissions } of answer.arrivals) {
        const name = `${parameter}=${value}`;
        const before = totals.get(name) ?? { arrivals: 0, submissions: 0 };
        totals.set(name, { arrivals: before.arrivals + arrivals, submissions: before.submissions + submissions });
      }
      print(options.json, answer, () =>
        totals.size === 0
          ? ['Nobody has come with anything to remember yet.']
          : columns([
              ['', 'arrivals', 'forms sent'],
              ...[...totals].map(([name, { arrivals, submissions }]) => [name, String(arrivals), String(submissions)]),
            ]),
      );
    });
}
