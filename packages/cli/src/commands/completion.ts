import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';

type Shell = 'bash' | 'zsh' | 'fish';

export function addCompletion(program: Command): void {
  program
    .command('completion')
    .argument('<shell>', 'bash, zsh or fish')
    .option('--json', 'Print JSON for programs')
    .addHelpText(
      'after',
      '\nExamples:\n  source <(pallmist completion bash)\n  pallmist completion zsh > "${fpath[1]}/_pallmist"\n  pallmist completion fish > ~/.config/fish/completions/pallmist.fish',
    )
    .action((shell: string, { json }: { json?: boolean }) => {
      const write = Object.hasOwn(scripts, shell) ? scripts[shell as Shell] : undefined;
      if (write === undefined)
        throw new CommandError(exit.usage, `There is no completion for “${shell}”; there is one for bash, zsh and fish.`);
      const script = write(commandsOf(program));
      process.stdout.write(json === true ? JSON.stringify({ shell, script }) + '\n' : script);
    });
}

interface Described {
  /** The words that name it: `records import`. */
  path: string;
  summary: string;
  options: { flag: string; summary: string }[];
}

/** Every command and subcommand with its options, in the order of the help. */
export function commandsOf(program: Command): Described[] {
  return program.commands.flatMap((command) =>
    [command, ...command.commands].map((each) => ({
      path: each === command ? command.name() : `${command.name()} ${each.name()}`,
      summary: each.description(),
      options: each.options
        .filter(({ hidden }) => !hidden)
        .map(({ long, short, description }) => ({ flag: long ?? short ?? '', summary: description })),
    })),
  );
}

const inQuotes = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
const isTop = ({ path }: Described) => !path.includes(' ');
const within = (described: readonly Described[], { path }: Described) =>
  described.filter((each) => each.path.startsWith(`${path} `)).map((each) => each.path.split(' ')[1] ?? '');

const scripts: Record<Shell, (described: readonly Described[]) => string> = {
  bash: (described) => `# Completion of pallmist for bash.
_pallmist() {
  local word="\${COMP_WORDS[COMP_CWORD]}" words
  case "\${COMP_WORDS[*]:1:2}" in
${described
  .toSorted((a, b) => b.path.length - a.path.length)
  .map(
    (each) =>
      `    ${inQuotes(each.path)}*) words=${inQuotes([...within(described, each), ...each.options.map(({ flag }) => flag)].join(' '))} ;;`,
  )
  .join('\n')}
    *) words=${inQuotes(
      described
        .filter(isTop)
        .map(({ path }) => path)
        .join(' '),
    )} ;;
  esac
  [ "$COMP_CWORD" = 1 ] && words=${inQuotes([...described.filter(isTop).map(({ path }) => path), '--help', '--version'].join(' '))}
  COMPREPLY=($(compgen -W "$words" -- "$word"))
  [ \${#COMPREPLY[@]} = 0 ] && COMPREPLY=($(compgen -f -- "$word"))
}
complete -o filenames -F _pallmist pallmist
`,
  zsh: (described) => `#compdef pallmist
# Completion of pallmist for zsh.
_pallmist() {
  local -a commands
  commands=(
${described
  .filter(isTop)
  .map(({ path, summary }) => `    ${inQuotes(`${path}:${summary.replaceAll(':', '\\:')}`)}`)
  .join('\n')}
  )
  if (( CURRENT == 2 )); then
    _describe 'command' commands
    return
  fi
  case "$words[2]" in
${described
  .filter(isTop)
  .map(
    (each) =>
      `    ${each.path}) _arguments ${[...each.options.map(({ flag, summary }) => inQuotes(`${flag}[${summary.replaceAll(/[[\]]/g, '\\$&').replaceAll(':', '\\:')}]`)), "'*:file:_files'"].join(' ')} ;;`,
  )
  .join('\n')}
  esac
}
compdef _pallmist pallmist
`,
  fish: (described) => `# Completion of pallmist for fish.
${described
  .filter(isTop)
  .map(({ path, summary }) => `complete -c pallmist -n __fish_use_subcommand -f -a ${path} -d ${inQuotes(summary)}`)
  .join('\n')}
${described
  .flatMap(({ path, options }) =>
    options.map(
      ({ flag, summary }) =>
        `complete -c pallmist -n ${inQuotes(
          path
            .split(' ')
            .map((word) => `__fish_seen_subcommand_from ${word}`)
            .join('; and '),
        )} -l ${flag.replace(/^--/, '')} -d ${inQuotes(summary)}`,
    ),
  )
  .join('\n')}
`,
};
