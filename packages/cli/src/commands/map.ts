import type { Command } from 'commander';
import { appFrom, withApp, type AppOptions } from '../app-source.ts';
import { print } from '../output.ts';

export function addMap(program: Command): void {
  withApp(program.command('map'))
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist map app.yaml > map.mmd\n  pallmist map --app quillmoor --json\nPages that only some may see are drawn with two lines; the parameters that a link sends stand on it.',
    )
    .action(async (file: string | undefined, options: AppOptions) => {
      const { definition } = await appFrom(file, options);
      const { mapApp, mermaidMap } = await import('@pallmist/app/editing');
      const map = mapApp(definition);
      print(options.json, map, () => [mermaidMap(map).trimEnd()]);
    });
}
