import { existsSync, writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';

export function addNew(program: Command): void {
  program
    .command('new')
    .argument('<title>', 'What the app is called')
    .option('--file <file>', 'Where to write it', 'app.yaml')
    .option('--json', 'Print JSON for programs')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist new "Seed swap"\n  pallmist new "Seed swap" --file seeds.yaml\nA file that exists is not overwritten.',
    )
    .action(async (title: string, { file, json }: { file: string; json?: boolean }) => {
      if (existsSync(file)) throw new CommandError(exit.usage, `${file} exists already, and is left as it is. Name another with --file.`);
      const { commentedApp, nameNewApp } = await import('@pallmist/app/new-app');
      const named = nameNewApp(title, []);
      writeFileSync(file, commentedApp(named));
      print(json, { file, ...named }, () => [
        `${file} is a small app with a list, a search and a record page.`,
        'Next:',
        `  pallmist check ${file}`,
        '  pallmist serve',
        `  pallmist push ${file} && pallmist publish ${named.app}`,
      ]);
    });
}
