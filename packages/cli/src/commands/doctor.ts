import type { Finding } from '@pallmist/service';
import type { Command } from 'commander';
import { exit } from '../exit.ts';
import { columns, print } from '../output.ts';

const signs: Record<Finding['state'], string> = { good: 'ok', doubtful: 'look', bad: 'BAD' };

export function addDoctor(program: Command): void {
  program
    .command('doctor')
    .option('--data <directory>', 'The data directory of the service; else PALLMIST_DATA, else pallmist-data')
    .option('--json', 'Print JSON for programs')
    .addHelpText(
      'after',
      '\nExample:\n  pallmist doctor --data /srv/pallmist\nThe exit status is 1 where something is bad. Nothing is changed.',
    )
    .action(async ({ data, json }: { data?: string; json?: boolean }) => {
      const { examine } = await import('@pallmist/service');
      const findings = await examine({ ...process.env, ...(data === undefined ? {} : { PALLMIST_DATA: data }) });
      print(json, { findings }, () => {
        const lines = columns(findings.map(({ about, state, message }) => [signs[state], about, message]));
        return lines.flatMap((line, index) => {
          const cure = findings[index]?.cure;
          return cure === undefined ? [line] : [line, `      ${cure}`];
        });
      });
      if (findings.some(({ state }) => state === 'bad')) process.exitCode = exit.problems;
    });
}
