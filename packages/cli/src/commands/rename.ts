import { writeFileSync } from 'node:fs';
import {
  own,
  changeAddress,
  checkAppFile,
  patchSource,
  renameChoice,
  renamePage,
  renameParameter,
  type AppDefinition,
  type PatchOperation,
} from '@pallmist/app';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems } from '../problems.ts';
import { readFile } from '../target.ts';

type Rename = (definition: AppDefinition, name: string, to: string, keepOld: boolean) => PatchOperation[];

/** `page.parameter`, `list.value`: a name with the name of what it belongs to before it. */
function partsOf(name: string, what: string): [string, string] {
  const dot = name.indexOf('.');
  if (dot < 1)
    throw new CommandError(
      exit.usage,
      `Name the ${what} as ${what === 'choice' ? 'LIST.VALUE' : 'PAGE.NAME'}, such as ${what === 'choice' ? 'health.poorly' : 'specimens.q'}.`,
    );
  return [name.slice(0, dot), name.slice(dot + 1)];
}

const renames: Record<string, Rename> = {
  page: renamePage,
  parameter: (definition, name, to, keepOld) => renameParameter(definition, ...partsOf(name, 'parameter'), to, keepOld),
  choice: (definition, name, to, keepOld) => renameChoice(definition, ...partsOf(name, 'choice'), to, keepOld),
  address: changeAddress,
};

export function addRename(program: Command): void {
  program
    .command('rename')
    .argument('<file>', 'An app file')
    .argument('<what>', `What is renamed: ${Object.keys(renames).join(', ')}`)
    .argument('<from>', 'PAGE, PAGE.PARAMETER or LIST.VALUE; for an address its page')
    .argument('<to>', 'The new name; for an address the new template')
    .option('--forget', 'Do not keep old addresses working')
    .option('--json', 'Print JSON for programs')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist rename app.yaml parameter specimens.q words\n  pallmist rename app.yaml choice health.poorly ailing\n  pallmist rename app.yaml address specimen "/plants/{specimen}{?tab,note}"',
    )
    .action((file: string, what: string, from: string, to: string, options: { forget?: boolean; json?: boolean }) => {
      const rename = Object.hasOwn(renames, what) ? own(renames, what) : undefined;
      if (rename === undefined)
        throw new CommandError(exit.usage, `“${what}” cannot be renamed; possible: ${Object.keys(renames).join(', ')}.`);
      const source = readFile(file);
      const { definition, problems } = checkAppFile(source);
      if (!definition)
        throw new CommandError(exit.problems, describeProblems(problems, { name: file, text: source }).join('\n'), { problems });
      const patch = rename(definition, from, to, options.forget !== true);
      if (patch.length === 0)
        throw new CommandError(exit.problems, `There is no ${what} “${from}”, or “${to}” is taken. Nothing is changed.`);
      writeFileSync(file, patchSource(source, patch));
      print(options.json, { patch }, () => [
        `${from} is ${to} now, in ${String(patch.length)} places.${options.forget === true ? ' Addresses with the old name stop working with the next edition.' : ' Addresses with the old name keep working.'}`,
      ]);
    });
}
