import { existsSync } from 'node:fs';
import { CommandError, exit } from './exit.ts';

/** The app file of a folder, as `pallmist new` names it. */
const usualFile = 'app.yaml';

/** For help: which file a command uses where none is named. */
export const appFileHelp = `An app file; “-” for standard input; ${usualFile} of this folder when left out`;

/** The app file that is meant: the one that is named; else, where no app of the service is named, `app.yaml` of this folder. */
export const appFileFor = (file: string | undefined, app?: string): string | undefined =>
  file ?? (app === undefined && existsSync(usualFile) ? usualFile : undefined);

/**
 * As `appFileFor`, for commands that need a file.
 * @throws CommandError where none is named and this folder has none
 */
export function neededAppFile(file: string | undefined): string {
  const found = appFileFor(file);
  if (found === undefined) throw new CommandError(exit.usage, `Name an app file: there is no ${usualFile} in this folder.`);
  return found;
}

/** What to say where neither a file nor an app of the service is meant. */
export const noApp = (named: string): CommandError =>
  new CommandError(exit.usage, `Name an app file${named}, or an app with --app: there is no ${usualFile} in this folder.`);
