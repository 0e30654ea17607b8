import { writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { appFrom, withApp, type AppOptions } from '../app-source.ts';
import { print } from '../output.ts';

export function addMap(program: Command): void {
  withApp(program.command('map'))
    .option('--svg [file]', 'Draw a picture (SVG) instead, into the file or to standard output')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist map app.yaml > map.mmd\n  pallmist map app.yaml --svg map.svg\n  pallmist map --app quillmoor --json\nPages that only some may see are drawn with two lines; the parameters that a link sends stand on it.',
    )
    .action(async (file: string | undefined, options: AppOptions & { svg?: string | true }) => {
      const { definition } = await appFrom(file, options);
      const { mapApp, mermaidMap } = await import('@pallmist/app/editing');
      const map = mapApp(definition);
      if (options.svg !== undefined) {
        const { mapSvg } = await import('@pallmist/app/map-svg');
        const picture = mapSvg(map, definition.title);
        if (options.svg === true) process.stdout.write(picture);
        else {
          writeFileSync(options.svg, picture);
          print(options.json, { file: options.svg }, () => [`The map is in ${String(options.svg)}.`]);
        }
        return;
      }
      print(options.json, map, () => [mermaidMap(map).trimEnd()]);
    });
}
