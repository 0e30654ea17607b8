import { readFileSync } from 'node:fs';
import {
  addressesIn,
  audit,
  checkAppFile,
  FormerPages,
  fromQuotedPrintable,
  isBroken,
  promisedPages,
  type AuditedAddress,
  type AuditVerdict,
  type PromisedPage,
} from '@pallmist/app';
import type { PallmistClient } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { paint } from '../problems.ts';
import { endProgress, showProgress } from '../progress.ts';
import { isPacked, spreadsheetLines } from '../spreadsheet.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface AuditOptions extends ServiceOptions {
  host?: string;
  all?: boolean;
}

/** An address with the places where it stands. */
interface Listed extends AuditedAddress {
  address: string;
  times: number;
  file: string;
  line: number;
}

/** Broken addresses that are listed unless all are asked for. */
const mostListed = 50;

const verdicts: Readonly<Record<AuditVerdict, string>> = {
  works: 'work',
  moved: 'lead to today’s address',
  noted: 'open without a value, and the page says so',
  refused: 'are refused',
  gone: 'are gone',
  unknown: 'lead nowhere',
  sealed: 'hold a sealed value, which only the service can open',
};

export function addAudit(program: Command): void {
  withService(
    program
      .command('audit')
      .argument('<app>', 'Name of the app')
      .argument('<files...>', 'Text, CSV, spreadsheets (.xlsx, .ods), sitemaps, access logs, mailboxes; “-” for standard input'),
  )
    .option('--host <host>', 'Take only whole URLs of this host')
    .option('--all', 'List every address that does not work, also those that are wrong in the same way')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist audit quillmoor newsletter.txt\n  pallmist audit quillmoor access.log --host garden.example\n\nExit status 1 if an address does not work.',
    )
    .action(async (app: string, files: string[], options: AuditOptions) => {
      const listed = await auditFiles(await clientFor(options), app, files, options.host);
      const broken = listed.filter(isBroken);
      // What is wrong in the same way is told once.
      const alike = options.all === true ? broken.map((one) => [one]) : groupAlike(broken);
      const shown = options.all === true ? alike : alike.slice(0, mostListed);
      print(options.json, { addresses: listed }, () => [
        ...shown.flatMap(told),
        ...(shown.length < broken.length ? ['', '--all lists each address that does not work.'] : []),
        ...(shown.length > 0 ? [''] : []),
        ...summary(listed),
      ]);
      if (broken.length > 0) process.exitCode = exit.problems;
    });
}

async function auditFiles(client: PallmistClient, app: string, files: readonly string[], host: string | undefined): Promise<Listed[]> {
  const { editions } = await client.call('listEditions', { app });
  const sources = await Promise.all(editions.map(({ number }) => client.call('getEdition', { app, number: String(number) })));
  const newest = sources[0] && checkAppFile(sources[0].source);
  if (newest?.definition === undefined || newest.compiled === undefined)
    throw new CommandError(exit.problems, `${app} is not published yet, so it has no addresses.`);
  const { definition, compiled } = newest;
  const mounts = [definition.mount, ...(definition.formerMounts ?? [])].map((mount) => (mount === '/' ? '' : mount));
  const former = new FormerPages(versionsOf(sources), new Set());
  const byAddress = new Map<string, Listed>();
  for (const file of files) {
    const lines = linesOf(file);
    for (const [number, line] of lines.entries()) {
      showProgress(file, number, lines.length);
      for (const found of addressesIn(line)) {
        const { address } = found;
        if (host !== undefined && found.host !== host) continue;
        // Where the app is at “/”, a path alone may be of anything.
        if (!mounts.some((mount) => (mount === '' ? found.host !== undefined || /^\/[\w-]/.test(address) : isBelow(address, mount))))
          continue;
        const known = byAddress.get(address);
        if (known === undefined)
          byAddress.set(address, { address, times: 1, file, line: number + 1, ...audit(address, definition, compiled, former) });
        else known.times++;
      }
    }
    endProgress(file, 'read');
  }
  return [...byAddress.values()];
}

const isBelow = (address: string, mount: string) => address.startsWith(mount) && /^(?:[/?#]|$)/.test(address.slice(mount.length));

function linesOf(file: string): string[] {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file === '-' ? 0 : file);
  } catch {
    throw new CommandError(exit.usage, `The file ${file} cannot be read.`);
  }
  if (isPacked(bytes)) return spreadsheetLines(file, bytes);
  const text = bytes.toString('utf8');
  return (/^content-transfer-encoding: *quoted-printable/im.test(text) ? fromQuotedPrintable(text) : text).split(/\r?\n/);
}

/** @param editions the newest first */
const versionsOf = (editions: readonly { number: number; source: string }[]): PromisedPage[] =>
  promisedPages(
    editions.toReversed().flatMap(({ number, source }) => {
      const { definition } = checkAppFile(source);
      return definition === undefined ? [] : [{ number, definition }];
    }),
  );

function groupAlike(broken: readonly Listed[]): Listed[][] {
  const groups = new Map<string, Listed[]>();
  for (const one of broken) {
    const key = JSON.stringify([one.verdict, one.page, one.reason, one.to]);
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [one]);
    else group.push(one);
  }
  return [...groups.values()];
}

function told(alike: readonly Listed[]): string[] {
  const [first] = alike;
  if (first === undefined) return [];
  const { address, file, line, verdict, reason, to } = first;
  const times = alike.reduce((sum, one) => sum + one.times, 0);
  const place = `${file}:${String(line)}${times > 1 ? ` and ${(times - 1).toLocaleString('en')} more` : ''}`;
  return [
    `${paint(verdict === 'noted' ? 'yellow' : 'red', verdict)}: ${address}  ${paint('dim', place)}`,
    ...(reason === undefined ? [] : [`    ${reason}`]),
    ...(to === undefined ? [] : [`    Perhaps ${to} was meant.`]),
  ];
}

function summary(listed: readonly Listed[]): string[] {
  if (listed.length === 0) return ['No address of the app stands in these files.'];
  return Object.entries(verdicts).flatMap(([verdict, words]) => {
    const count = listed.filter((one) => one.verdict === verdict).length;
    return count === 0 ? [] : [`${String(count).padStart(6)}  ${words}`];
  });
}
