import type { Command } from 'commander';
import { appFrom, withApp, type AppOptions } from '../app-source.ts';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';

export function addParams(program: Command): void {
  withApp(program.command('params'))
    .option('--page <name>', 'Only those of this page')
    .addHelpText('after', '\nExamples:\n  pallmist params app.yaml --page specimens\n  pallmist params --app quillmoor --json')
    .action(async (file: string | undefined, options: AppOptions & { page?: string }) => {
      const { compiled } = await appFrom(file, options);
      const { suggest } = await import('@pallmist/app/address');
      const { page } = options;
      if (page !== undefined && !compiled.pages.has(page))
        throw new CommandError(exit.problems, `There is no page “${page}”. ${suggest(page, compiled.pages.keys())}`);
      const parameters = [...compiled.pages.values()]
        .filter(({ name }) => page === undefined || name === page)
        .flatMap((one) =>
          one.parameters.map(({ name, place, declaration, required, fallback, sealed }) => ({
            page: one.name,
            name,
            place,
            type: declaration.type,
            of: declaration.of ?? declaration.items?.of ?? declaration.items?.type,
            required,
            default: fallback?.(),
            sealed,
            step: declaration.step !== false,
            label: declaration.label,
          })),
        );
      print(options.json, { parameters }, () =>
        columns([
          ['page', 'parameter', 'place', 'type', 'default'],
          ...parameters.map((one) => [
            one.page,
            one.name,
            one.place,
            one.type + (one.of === undefined ? '' : ` of ${one.of}`),
            one.required ? 'required' : one.default === undefined ? '' : JSON.stringify(one.default),
          ]),
        ]),
      );
    });
}
