import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { appFrom, withApp, type AppOptions } from '../app-source.ts';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';

type TypesOptions = AppOptions & { out?: string; check?: boolean };

export function addTypes(program: Command): void {
  withApp(program.command('types'))
    .option('--out <file>', 'Where to write the module; standard output when left out')
    .option('--check', 'Write nothing; end with 1 where the file that --out names is not up to date')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist types app.yaml --out src/pages.ts\n  pallmist types app.yaml --out src/pages.ts --check\n  pallmist types --app quillmoor > pages.ts\nThe module needs @pallmist/address. The same app gives the same module.',
    )
    .action(async (file: string | undefined, options: TypesOptions) => {
      const { out, check = false, json } = options;
      if (check && out === undefined) throw new CommandError(exit.usage, '--check needs --out: the file that is to be up to date.');
      const { definition, compiled } = await appFrom(file, options);
      const { frontEndModule } = await import('@pallmist/app');
      const module = frontEndModule(definition, compiled);
      if (out === undefined) {
        print(json, { module }, () => [module.trimEnd()]);
        return;
      }
      const upToDate = existsSync(out) && readFileSync(out, 'utf8') === module;
      if (check) {
        print(json, { file: out, upToDate }, () => [
          upToDate ? `${out} is up to date.` : `${out} is not what the app says now. Run pallmist types without --check.`,
        ]);
        process.exitCode = upToDate ? exit.done : exit.problems;
        return;
      }
      // A file that is the same keeps its time, so that nothing is built again.
      if (!upToDate) writeFileSync(out, module);
      print(json, { file: out, changed: !upToDate, pages: [...compiled.pages.keys()] }, () => [
        upToDate ? `${out} is up to date.` : `${out} has ${String(compiled.pages.size)} pages.`,
      ]);
    });
}
