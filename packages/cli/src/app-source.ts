import type { CheckedApp } from '@pallmist/app';
import type { Command } from 'commander';
import { appFileFor, appFileHelp, noApp } from './app-file.ts';
import { CommandError, exit } from './exit.ts';
import { clientFor, readFile, withService, type ServiceOptions } from './target.ts';

export type AppOptions = ServiceOptions & { app?: string };

/** Adds what says which app is meant: a file, or the draft of an app in the service. */
export function withApp(command: Command): Command {
  return withService(command.argument('[file]', appFileHelp).option('--app <name>', 'Use the draft of this app in the service'));
}

/**
 * The app in a file or in a draft.
 * @param given a file; where neither it nor an app is named, it is app.yaml of this folder
 * @throws CommandError where there is none, or where its addresses cannot be read
 */
export async function appFrom(
  given: string | undefined,
  options: AppOptions,
): Promise<CheckedApp & Required<Pick<CheckedApp, 'definition' | 'compiled'>>> {
  const { checkAppFile } = await import('@pallmist/app');
  const file = appFileFor(given, options.app);
  if (file === undefined && options.app === undefined) throw noApp('');
  const name = file ?? options.app ?? '';
  const text = file === undefined ? (await (await clientFor(options)).call('getDraft', { app: name })).source : readFile(file);
  const checked = checkAppFile(text);
  const { definition, compiled, problems } = checked;
  if (definition === undefined || compiled === undefined) {
    const { describeProblems } = await import('./problems.ts');
    throw new CommandError(exit.problems, describeProblems(problems, { name, text }).join('\n'), { problems });
  }
  return { ...checked, definition, compiled };
}
