import { writeFileSync } from 'node:fs';
import type { Command } from 'commander';
import { appFileFor, noApp } from '../app-file.ts';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { pagesIn } from '../page-module.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

type DeclareOptions = ServiceOptions & { app?: string; check?: boolean };

export function addDeclare(program: Command): void {
  withService(
    program
      .command('declare')
      .argument('<module>', 'A module of JavaScript or TypeScript that exports pages')
      .argument('[file]', 'The app file that takes them; app.yaml of this folder when left out')
      .option('--app <name>', 'Put them into the draft of this app in the service instead')
      .option('--check', 'Change nothing; end with 1 where the app does not say what the module does'),
  )
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist declare src/pages.ts app.yaml\n  pallmist declare src/pages.ts app.yaml --check\n  pallmist declare src/pages.ts --app quillmoor\n' +
        'The pages get their addresses and parameters from the module. What they show stays, and so do all other pages;\na page that is new has no content yet.',
    )
    .action(async (module: string, given: string | undefined, options: DeclareOptions) => {
      const { app, check = false, json } = options;
      if (given !== undefined && app !== undefined) throw new CommandError(exit.usage, 'Name an app file or an app, not both.');
      const file = appFileFor(given, app);
      if (file === undefined && app === undefined) throw noApp('');
      const pages = await pagesIn(module);
      const client = app === undefined ? undefined : await clientFor(options);
      const draft = await client?.call('getDraft', { app: app ?? '' });
      const text = draft?.source ?? readFile(file ?? '');
      const { declareInSource } = await import('@pallmist/app');
      const name = file ?? app ?? '';
      const declared = declareInSource(text, pages);
      if (declared === undefined) throw new CommandError(exit.problems, `${name} is no app file yet. Run pallmist check on it first.`);
      const { source, checked, ...told } = declared;
      const errors = checked.problems.filter(({ severity }) => severity === 'error');
      if (errors.length > 0) {
        const { describeProblems } = await import('../problems.ts');
        const lines = describeProblems(errors, { name, text: source });
        throw new CommandError(
          exit.problems,
          [`${name} has errors with the pages of ${module}, so nothing is changed:`, ...lines].join('\n'),
          {
            problems: errors,
          },
        );
      }
      const changes = source !== text;
      if (changes && !check) {
        if (client !== undefined && draft !== undefined)
          await client.call('pushDraft', { app: app ?? '' }, { source }, { ifMatch: `"${String(draft.revision)}"` });
        else writeFileSync(file ?? '', source);
      }
      if (check && changes) process.exitCode = exit.problems;
      print(json, { ...told, upToDate: !changes }, () => said(name, module, told, changes, check));
    });
}

interface Told {
  added: readonly string[];
  changed: readonly string[];
  collections: readonly string[];
}

function said(name: string, module: string, { added, changed, collections }: Told, changes: boolean, check: boolean): string[] {
  if (!changes) return [`${name} says what ${module} does.`];
  const would = check ? 'would be ' : '';
  return [
    ...added.map((page) => `${page}: ${would}added${check ? '' : ', without content yet'}`),
    ...changed.map((page) => `${page}: ${would}changed`),
    ...collections.map(
      (collection) =>
        `${collection}: ${would}added as a collection, of which the module tells the keys alone. Add its fields, or name another under “of”.`,
    ),
    ...(check ? [`${name} does not say what ${module} does. Run pallmist declare without --check.`] : []),
  ];
}
