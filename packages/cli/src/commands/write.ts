import { writeFileSync } from 'node:fs';
import { readTexts, writeAddress, type Problem, type Values } from '@pallmist/app/address';
import type { Command } from 'commander';
import { appFileFor, noApp } from '../app-file.ts';
import { appFrom } from '../app-source.ts';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { describeProblems, type ShownProblem } from '../problems.ts';
import { clientFor, readFile, withService, type ServiceOptions } from '../target.ts';

export function addWrite(program: Command): void {
  withService(program.command('write').argument('<page>', 'Name of the page').argument('[values...]', 'Its values, each as name=value'))
    .option('--file <file>', 'Use this app file; app.yaml of this folder when neither --file nor --app is there')
    .option('--app <name>', 'Use the published app of the service; with the owner’s token, values are sealed where they have to be')
    .option('--values <json>', 'More values, with their types, as a JSON object; “-” reads it from standard input')
    .option('--sharing', 'Leave out parameters that are not for sharing')
    .option('--whole', 'With --app: print the whole URL, as visitors reach the service')
    .option('--short', 'With --app: make a short address of it')
    .option('--qr <file>', 'With --app: also write its QR code, as an .svg or a .png file')
    .option('--printed-on <text>', 'With --qr: note what the code is printed on, so that publishing cannot change what it means')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist write specimen specimen=QM-0412 tab=care --file app.yaml\n  pallmist write specimens "q=café & rose" sort=-name --app quillmoor\n  pallmist write specimens --values \'{"zones": ["fog-desert"], "page": 2}\' --file app.yaml\n  pallmist link specimen specimen=QM-0412 --app quillmoor --whole\n  pallmist write specimen specimen=QM-0412 --app quillmoor --short --qr plant.svg\n  pallmist write specimen specimen=QM-0412 --app quillmoor --qr plant.svg --printed-on "Plant labels, spring 2026"',
    )
    .action(async (page: string, pairs: string[], options: WriteOptions) => {
      refuseFile(page);
      if (options.app === undefined && (options.whole === true || options.short === true || options.qr !== undefined))
        throw new CommandError(exit.usage, '--whole, --short and --qr go with --app: the service makes them.');
      const { address, url, problems } = await write(page, textsIn(pairs), valuesIn(options.values), options);
      const short = address === undefined || options.short !== true ? undefined : await makeShort(address, options);
      const inCode = short === undefined ? address : new URL(short).pathname;
      if (options.printedOn !== undefined && options.qr === undefined)
        throw new CommandError(exit.usage, '--printed-on goes with --qr. “pallmist printed” notes an address without a code.');
      if (inCode !== undefined && options.qr !== undefined) {
        if (options.printedOn !== undefined)
          await (await clientFor(options)).call('addPrinted', { app: options.app ?? '' }, { address: inCode, note: options.printedOn });
        await saveCode(inCode, options.qr, options);
      }
      print(options.json, { address, url, problems, ...(short === undefined ? {} : { short }) }, () =>
        address === undefined ? [] : [short ?? (options.whole === true ? url : undefined) ?? address],
      );
      if (options.json !== true && problems.length > 0) process.stderr.write(describeProblems(problems).join('\n') + '\n');
      process.exitCode = address === undefined ? exit.problems : exit.done;
    });
}

interface WriteOptions extends ServiceOptions {
  file?: string;
  app?: string;
  values?: string;
  sharing?: boolean;
  whole?: boolean;
  short?: boolean;
  qr?: string;
  printedOn?: string;
}

async function write(
  page: string,
  texts: Record<string, string>,
  more: Values,
  options: WriteOptions,
): Promise<{ address?: string; url?: string; problems: readonly ShownProblem[] }> {
  const sharing = options.sharing ?? false;
  const file = appFileFor(options.file, options.app);
  if (file !== undefined) {
    const { compiled } = await appFrom(file, options);
    const read = readTexts(compiled, page, texts);
    // Both kinds of problems at once: texts that cannot be read, and what the address still lacks.
    const written = writeAddress(compiled, page, { ...read.values, ...more }, { forSharing: sharing });
    const refused = new Set(read.problems.map(({ parameter }) => parameter));
    const problems: Problem[] = [
      ...read.problems,
      ...written.problems.filter(({ parameter }) => parameter === undefined || !refused.has(parameter)),
    ];
    return read.problems.length === 0 && written.address !== undefined ? { address: written.address, problems } : { problems };
  }
  if (options.app === undefined) throw noApp(' with --file');
  return (await clientFor(options)).call('writeAddress', { app: options.app }, { page, texts, values: more, sharing });
}

async function makeShort(address: string, options: WriteOptions): Promise<string> {
  const { shortAddresses } = await (await clientFor(options)).call('makeShort', { app: options.app ?? '' }, { address });
  return shortAddresses[0]?.short ?? address;
}

/** Has the service draw the QR code of an address. */
async function saveCode(address: string, file: string, options: WriteOptions): Promise<void> {
  const format = /\.(svg|png)$/i.exec(file)?.[1]?.toLowerCase();
  if (format === undefined) throw new CommandError(exit.usage, '--qr names an .svg or a .png file.');
  const { apps } = await (await clientFor(options)).call('listApps', {});
  const mount = apps.find(({ app }) => app === options.app)?.mount ?? '/';
  const response = await fetch(
    `${options.service.replace(/\/$/, '')}${mount === '/' ? '' : mount}/~qr.${format}?of=${encodeURIComponent(address)}`,
  );
  if (!response.ok) throw new CommandError(exit.problems, `The service drew no QR code of ${address} (${String(response.status)}).`);
  writeFileSync(file, Buffer.from(await response.arrayBuffer()));
}

function valuesIn(given: string | undefined): Values {
  if (given === undefined) return {};
  let values: unknown;
  try {
    values = JSON.parse(given === '-' ? readFile('-') : given);
  } catch {
    throw new CommandError(exit.usage, '--values is not JSON; write it as {"name": value}.');
  }
  if (typeof values !== 'object' || values === null || Array.isArray(values))
    throw new CommandError(exit.usage, '--values is a JSON object: {"name": value}.');
  return values as Values;
}

/** Other commands take the app file as an argument. @throws CommandError for a word that is the name of such a file */
function refuseFile(word: string): void {
  if (/^[^=]+\.(?:ya?ml|json)$/i.test(word))
    throw new CommandError(exit.usage, `“${word}” is a file. To use it as the app file, write --file ${word}.`);
}

function textsIn(pairs: readonly string[]): Record<string, string> {
  const texts: Record<string, string> = {};
  for (const pair of pairs) {
    const equals = pair.indexOf('=');
    refuseFile(pair);
    if (equals < 1) throw new CommandError(exit.usage, `“${pair}” is not a value; write it as name=value.`);
    const name = pair.slice(0, equals);
    if (Object.hasOwn(texts, name)) throw new CommandError(exit.usage, `“${name}” is given twice.`);
    texts[name] = pair.slice(equals + 1);
  }
  return texts;
}
