import type { LinkFinding, PallmistClient, Rehearsal } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { print } from '../output.ts';
import { paint } from '../problems.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface RehearseOptions extends ServiceOptions {
  fix?: boolean;
  repair?: string[];
  putBack?: string[];
}

/** Headings in the order in which findings are told. */
export const headings: Readonly<Record<LinkFinding['fate'], string>> = {
  silent: 'Opens, and means something else: nobody would notice',
  gone: 'Leads nowhere',
  refused: 'Refused',
  noted: 'Opens without the value, and says so (publishing needs no consent)',
};

export function addRehearse(program: Command): void {
  withService(program.command('rehearse').argument('<app>', 'Name of the app'))
    .option('--fix', 'Apply the repairs that can mean only one thing')
    .option('--repair <findings...>', 'Apply the first repair of these findings')
    .option('--put-back <findings...>', 'Take the changes back that these findings come from')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist rehearse quillmoor\n  pallmist rehearse quillmoor --fix && pallmist pull quillmoor app.yaml\n  pallmist rehearse quillmoor --repair 1f0c9a72be\n\nExit status 1 while a finding needs a repair or your consent.',
    )
    .action(async (app: string, options: RehearseOptions) => {
      const client = await clientFor(options);
      const applied = await applyAll(client, app, options);
      const rehearsal = await client.call('rehearse', { app });
      const open = rehearsal.findings.filter(({ needsConsent }) => needsConsent);
      print(options.json, { applied, ...rehearsal }, () => [
        ...applied.map((words) => `Done: ${words}`),
        ...(applied.length > 0 ? [`The draft has changed. “pallmist pull ${app} FILE” writes it into a file.`, ''] : []),
        ...told(app, rehearsal.findings),
        ...toldOthers(rehearsal.others),
      ]);
      if (open.length > 0) process.exitCode = exit.problems;
    });
}

/** Applies one repair after the other: each may make another one needless. @returns what was done, in words */
async function applyAll(client: PallmistClient, app: string, options: RehearseOptions): Promise<string[]> {
  const wanted = new Set([...(options.repair ?? []), ...(options.putBack ?? [])]);
  const applied: string[] = [];
  const first = await client.call('rehearse', { app });
  for (const id of wanted) {
    const finding = first.findings.find((one) => one.id === id);
    if (finding === undefined) throw new CommandError(exit.usage, `There is no finding ${id}. “pallmist rehearse ${app}” lists them.`);
    if (chosen(finding, options) === undefined)
      throw new CommandError(exit.problems, `Pallmist knows no such repair for ${id}: ${finding.words}`);
  }
  let rehearsal = first;
  // Each round takes away one finding at least.
  for (let rounds = first.findings.length; rounds > 0; rounds--) {
    const repair = rehearsal.findings.flatMap((finding) => chosen(finding, options) ?? []).at(0);
    if (repair === undefined) break;
    await client.call('changeDraft', { app }, { revision: rehearsal.revision, patch: repair.patch, what: repair.words.slice(0, 300) });
    applied.push(repair.words);
    rehearsal = await client.call('rehearse', { app });
  }
  return applied;
}

function chosen({ id, repairs }: LinkFinding, { fix, repair, putBack }: RehearseOptions): LinkFinding['repairs'][number] | undefined {
  if (repair?.includes(id) === true) return repairs.find(({ kind }) => kind === 'repair');
  if (putBack?.includes(id) === true) return repairs.find(({ kind }) => kind === 'put-back');
  return fix === true ? repairs.find(({ certain }) => certain) : undefined;
}

/** Findings by what becomes of addresses, each with what can be done. */
function told(app: string, findings: Rehearsal['findings']): string[] {
  if (findings.length === 0) return ['Every address of earlier editions means the same after publishing.'];
  const lines: string[] = [];
  for (const [fate, heading] of Object.entries(headings)) {
    const some = findings.filter((finding) => finding.fate === fate);
    if (some.length === 0) continue;
    lines.push(paint('bold', heading));
    for (const { id, words, witness, editions, repairs, printed, short, visits } of some) {
      lines.push(`  ${paint('yellow', id)}  ${words}`);
      lines.push(
        paint(
          'dim',
          `              ${witness}  (${editionsIn(editions)}${visits > 0 ? `; ${visits.toLocaleString('en')} ${visits === 1 ? 'visit' : 'visits'} in 30 days` : ''})`,
        ),
      );
      for (const { address, note } of printed)
        lines.push(`              ${paint('red', 'Printed')}: ${address} (${note}). This finding can only be repaired.`);
      if (short.length > 0)
        lines.push(paint('dim', `              Short addresses that it concerns: ${short.map((code) => `~s/${code}`).join(', ')}`));
      for (const { kind, words: offer, certain } of repairs)
        lines.push(`              ${kind === 'repair' ? `--repair${certain ? ' or --fix' : ''}` : '--put-back'}: ${offer}`);
    }
    lines.push('');
  }
  const open = findings.filter(({ needsConsent }) => needsConsent).length;
  lines.push(
    open === 0
      ? 'Nothing needs your consent.'
      : `${open === 1 ? '1 finding needs' : `${String(open)} findings need`} a repair, or your consent: pallmist publish ${app} --consent ID --why TEXT`,
  );
  return lines;
}

const otherHeadings: Readonly<Record<Rehearsal['others'][number]['group'], string>> = {
  'who-may-see': 'Who may see it',
  'how-it-looks': 'How it looks',
};

/** What differs where addresses mean the same; nobody has to agree to it. */
function toldOthers(others: Rehearsal['others']): string[] {
  return Object.entries(otherHeadings).flatMap(([group, heading]) => {
    const words = others.filter((one) => one.group === group).map((one) => `  ${one.words}`);
    return words.length === 0 ? [] : ['', paint('bold', heading), ...words];
  });
}

function editionsIn(editions: readonly number[]): string {
  const [first = 0] = editions;
  const last = editions.at(-1) ?? first;
  if (first === last) return `edition ${String(first)}`;
  return `${editions.length === last - first + 1 ? 'editions' : 'among editions'} ${String(first)} to ${String(last)}`;
}
