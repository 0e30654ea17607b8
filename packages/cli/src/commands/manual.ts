import type { Command } from 'commander';
import { version } from '../version.ts';

export function addManual(program: Command): void {
  program
    .command('manual')
    .option('--json', 'Print JSON for programs')
    .addHelpText('after', '\nExamples:\n  pallmist manual | man -l -\n  pallmist manual > /usr/local/share/man/man1/pallmist.1')
    .action(({ json }: { json?: boolean }) => {
      const page = manualPage(program);
      process.stdout.write(json === true ? JSON.stringify({ page }) + '\n' : page);
    });
}

/** Text as roff has it: a line must not begin with a dot, and “-” is a hyphen unless escaped. */
const roff = (text: string): string =>
  text
    .replaceAll('\\', '\\e')
    .replaceAll('-', '\\-')
    .replaceAll(/^([.'])/gm, '\\&$1');

/** The manual page (section 1) of the command and all its parts. */
function manualPage(program: Command): string {
  const lines = [
    `.TH PALLMIST 1 "" "pallmist ${version}"`,
    '.SH NAME',
    `pallmist \\- ${roff('keeps the state of a page in its address')}`,
    '.SH SYNOPSIS',
    '.B pallmist',
    roff('COMMAND [options]'),
    '.SH DESCRIPTION',
    roff(program.description()),
    '.SH COMMANDS',
  ];
  for (const command of program.commands) {
    for (const each of [command, ...command.commands]) {
      const name = each === command ? each.name() : `${command.name()} ${each.name()}`;
      if (each.name() === 'help') continue;
      lines.push('.SS', roff(`pallmist ${name} ${each.usage().replace('[options] ', '')}`.trim()), roff(each.description()));
      for (const { flags, description, hidden } of each.options) if (!hidden) lines.push('.TP', `.B ${roff(flags)}`, roff(description));
    }
  }
  lines.push(
    '.SH EXIT STATUS',
    roff('0 done, 1 problems found, 2 wrong usage, 3 service not reached.'),
    '.SH ENVIRONMENT',
    '.TP',
    '.B PALLMIST_URL',
    roff('Where the service is; else http://127.0.0.1:4680.'),
    '.TP',
    '.B PALLMIST_TOKEN',
    roff('The owner’s token; else the file api-token in PALLMIST_DATA.'),
  );
  return lines.join('\n') + '\n';
}
