import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

export function addAccess(program: Command): void {
  withService(program.command('access'))
    .option('--end-sessions', 'End all console sessions')
    .option('--renew-token', 'Replace the owner’s token; the old token stops working at once')
    .addHelpText('after', '\nExamples:\n  pallmist access --end-sessions\n  pallmist access --renew-token')
    .action(async (options: ServiceOptions & { endSessions?: boolean; renewToken?: boolean }) => {
      if (options.endSessions !== true && options.renewToken !== true)
        throw new CommandError(exit.usage, 'Give --end-sessions, --renew-token, or both.');
      const client = await clientFor(options);
      const answer: { ended?: number; token?: string } = {};
      if (options.endSessions === true) Object.assign(answer, await client.call('endConsoleSessions', {}, undefined));
      if (options.renewToken === true) Object.assign(answer, await client.call('renewToken', {}, undefined));
      print(options.json, answer, () => [
        ...(answer.ended === undefined ? [] : [`The console was open in ${String(answer.ended)} browsers, and is closed in all of them.`]),
        ...(answer.token === undefined ? [] : ['The new token is in the file api-token of the data directory:', answer.token]),
      ]);
    });
}
