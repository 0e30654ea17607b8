import type { Command } from 'commander';
import { appFrom, withApp, type AppOptions } from '../app-source.ts';
import { columns, print } from '../output.ts';

export function addPages(program: Command): void {
  withApp(program.command('pages'))
    .addHelpText('after', '\nExamples:\n  pallmist pages app.yaml\n  pallmist pages --app quillmoor --json')
    .action(async (file: string | undefined, options: AppOptions) => {
      const { definition, compiled } = await appFrom(file, options);
      const { mapApp } = await import('@pallmist/app/editing');
      const mount = compiled.mount;
      const pages = mapApp(definition).pages.map(({ name, title, address, gate, unlinked }) => ({
        name,
        address: mount + address,
        title,
        gate,
        unlinked,
      }));
      print(options.json, { pages }, () =>
        columns(
          pages.map(({ name, address, title, gate, unlinked }) => [
            name,
            address,
            title,
            [gate === undefined ? '' : `for ${gate}`, unlinked ? 'no link leads here' : ''].filter((said) => said !== '').join(', '),
          ]),
        ),
      );
    });
}
