import type { ApiTokenSummary } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface TokenOptions extends ServiceOptions {
  make?: string;
  scopes?: string;
  app?: string;
  days?: string;
  renew?: string;
  end?: string;
}

export function addTokens(program: Command): void {
  withService(program.command('tokens'))
    .option('--make <name>', 'Make a token for a program, with a name that says what it is for')
    .option('--scopes <list>', 'With --make: what it may do, with commas between, such as records:read,records:write')
    .option('--app <app>', 'With --make: the only app that it is for')
    .option('--days <number>', 'With --make: days until it ends; never when left out')
    .option('--renew <id>', 'Give a token a new text; the one before is void at once')
    .option('--end <id>', 'End a token')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist tokens\n  pallmist tokens --make "label printer" --scopes records:read --app quillmoor --days 365\nThe scopes are listed in the reference of the HTTP interface, /~/api of the service.',
    )
    .action(async (options: TokenOptions) => {
      const { make, renew, end } = options;
      if ([make, renew, end].filter((given) => given !== undefined).length > 1)
        throw new CommandError(exit.usage, 'Give one of --make, --renew and --end.');
      const client = await clientFor(options);
      if (make !== undefined) {
        const body = { name: make, ...(await scopesOf(options)), ...(options.app === undefined ? {} : { app: options.app }) };
        const days = options.days === undefined ? {} : { days: daysOf(options.days) };
        show(options.json, await client.call('makeToken', {}, { ...body, ...days }));
      } else if (renew !== undefined) show(options.json, await client.call('renewScopedToken', { id: renew }, undefined));
      else if (end !== undefined) {
        const answer = await client.call('endToken', { id: end }, undefined);
        print(options.json, answer, () => ['The token is void.']);
      } else {
        const answer = await client.call('listTokens', {}, undefined);
        print(options.json, answer, () => (answer.tokens.length === 0 ? ['There are no tokens.'] : columns(answer.tokens.map(row))));
      }
    });
}

async function scopesOf({ scopes }: TokenOptions) {
  const { scopeNames } = await import('@pallmist/api');
  const { suggest } = await import('@pallmist/app/address');
  const given = (scopes ?? '')
    .split(',')
    .map((name) => name.trim())
    .filter((name) => name !== '');
  if (given.length === 0) throw new CommandError(exit.usage, `--make needs --scopes, of ${scopeNames.join(', ')}.`);
  const known = scopeNames.filter((name) => given.includes(name));
  const stranger = given.find((name) => !(scopeNames as readonly string[]).includes(name));
  if (stranger !== undefined) throw new CommandError(exit.usage, `There is no scope “${stranger}”. ${suggest(stranger, scopeNames)}`);
  return { scopes: known };
}

function daysOf(text: string): number {
  const days = Number(text);
  if (!(days > 0 && days <= 3650)) throw new CommandError(exit.usage, '--days is a number up to 3650.');
  return days;
}

const show = (json: boolean | undefined, answer: { made: ApiTokenSummary; token: string }) => {
  print(json, answer, () => ['This is shown once:', answer.token, '', ...columns([row(answer.made)])]);
};

const row = ({ id, name, scopes, app, endsAt, usedOn }: ApiTokenSummary) => [
  id,
  name,
  scopes.join(','),
  app ?? 'all apps',
  endsAt === null ? 'does not end' : `until ${endsAt.slice(0, 10)}`,
  usedOn === null ? 'never used' : `used on ${usedOn}`,
];
