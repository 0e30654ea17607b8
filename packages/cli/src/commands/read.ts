import type { AnswerOf } from '@pallmist/api';
import { readAddress, writeAddress } from '@pallmist/app/address';
import type { Command } from 'commander';
import { appFileFor, noApp } from '../app-file.ts';
import { appFrom } from '../app-source.ts';
import { exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { describeProblems, paint } from '../problems.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

type ReadingTold = AnswerOf<'readAddress'>;

export function addRead(program: Command): void {
  withService(program.command('read').argument('<address>', 'A path with query, or a whole URL'))
    .option('--file <file>', 'Use this app file; app.yaml of this folder when neither --file nor --app is there')
    .option('--app <name>', 'Use the published app of the service')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist read "/garden/specimens/QM-0412?tab=care" --file app.yaml\n  pallmist read "/garden/specimens?q=fern&page=2" --app quillmoor --json',
    )
    .action(async (address: string, options: ServiceOptions & { file?: string; app?: string }) => {
      const reading = await readIt(address, options);
      print(options.json, reading, () => tell(address, reading));
      const wrong = reading.status !== 'found' || reading.problems.some(({ severity }) => severity !== 'note');
      process.exitCode = wrong ? exit.problems : exit.done;
    });
}

async function readIt(address: string, options: ServiceOptions & { file?: string; app?: string }): Promise<ReadingTold> {
  const file = appFileFor(options.file, options.app);
  if (file !== undefined) {
    const { compiled } = await appFrom(file, options);
    const reading = readAddress(compiled, address);
    const written =
      reading.page !== undefined && reading.status === 'found' ? writeAddress(compiled, reading.page, reading.values).address : undefined;
    return { ...reading, ...(written === undefined ? {} : { address: written }) };
  }
  if (options.app === undefined) throw noApp(' with --file');
  return (await clientFor(options)).call('readAddress', { app: options.app }, { address });
}

function tell(address: string, reading: ReadingTold): string[] {
  const shown = address.length > 300 ? `${address.slice(0, 300)}…` : address;
  const head = [
    ['address', shown],
    ['page', reading.page ?? 'none'],
    ...(reading.address === undefined || reading.address === address ? [] : [['written as', reading.address]]),
  ];
  const rows = reading.parameters.map(({ name, place, text, value, origin, corrected }) => [
    name,
    place,
    text ?? '–',
    asRead(value),
    origin + (corrected ? ', corrected' : ''),
  ]);
  return [
    ...columns(head.map(([label = '', value = '']) => [paint('dim', label), value])),
    ...(rows.length === 0 ? [] : ['', ...columns([['parameter', 'place', 'text', 'value', 'origin'], ...rows])]),
    ...(reading.problems.length === 0 ? [] : ['', ...describeProblems(reading.problems)]),
  ];
}

/** A value as it is best read: texts as they are, sort orders as they are written, anything else as JSON. */
function asRead(value: unknown): string {
  if (value === undefined) return '–';
  if (typeof value === 'string') return value;
  const keys = Array.isArray(value) && value.length > 0 && value.every(isSortKey) ? value : undefined;
  return keys?.map(({ field, descending }) => (descending ? '-' : '') + field).join(',') ?? JSON.stringify(value);
}

const isSortKey = (item: unknown): item is { field: string; descending: boolean } =>
  typeof item === 'object' && item !== null && 'field' in item && 'descending' in item;
