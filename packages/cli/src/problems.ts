import { styleText } from 'node:util';

/** A problem as the core finds it, or as the service tells it. */
export interface ShownProblem {
  code: string;
  severity: 'error' | 'warning' | 'note';
  message: string;
  hint?: string | undefined;
  line?: number | undefined;
  column?: number | undefined;
}

const colors = { error: 'red', warning: 'yellow', note: 'cyan' } as const;

/** Adds colour where a terminal shows it, and not where the output is kept. */
export const paint = (format: Parameters<typeof styleText>[0], text: string): string =>
  styleText(format, text, { validateStream: true, stream: process.stdout });

/**
 * Says problems in lines for people.
 * @param file name and text of the file they are in, to show the place
 */
export function describeProblems(problems: readonly ShownProblem[], file?: { name: string; text: string }): string[] {
  const lines = file?.text.split('\n') ?? [];
  return problems.flatMap((problem) => {
    const place = file && problem.line !== undefined ? `${file.name}:${String(problem.line)}:${String(problem.column ?? 1)}: ` : '';
    const told = [`${place}${paint(colors[problem.severity], problem.severity)}: ${problem.message} ${paint('dim', `[${problem.code}]`)}`];
    const source = problem.line === undefined ? undefined : lines[problem.line - 1];
    if (file && source !== undefined && source.length <= 160) {
      told.push(
        paint('dim', `    ${source}`),
        `    ${' '.repeat(Math.max(0, (problem.column ?? 1) - 1))}${paint(colors[problem.severity], '↑')}`,
      );
    }
    if (problem.hint !== undefined) told.push(`    ${problem.hint}`);
    return told;
  });
}
