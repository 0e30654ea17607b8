import type { Problem } from '@pallmist/address/declare';
import { appFile } from '../app-file.ts';
import { shapeProblems } from '../shape-problems.ts';
import { parseSource } from '../source-map.ts';
import { checkDefinition, type CheckedApp } from './check-definition.ts';

/** Checks the text of an app file (YAML or JSON). Never throws for what the text says. */
export function checkAppFile(text: string): CheckedApp {
  const source = parseSource(text);
  if (source.problems.some((problem) => problem.severity === 'error')) return { problems: source.problems };
  const parsed = appFile.safeParse(source.data);
  if (!parsed.success) {
    return {
      problems: inOrder([...source.problems, ...shapeProblems(parsed.error, source.data)].map((problem) => source.locate(problem))),
    };
  }
  const { compiled, problems } = checkDefinition(parsed.data);
  return {
    definition: parsed.data,
    compiled,
    problems: inOrder([...source.problems, ...problems].map((problem) => source.locate(problem))),
  };
}

const inOrder = (problems: Problem[]) => problems.sort((a, b) => (a.line ?? 0) - (b.line ?? 0) || (a.column ?? 0) - (b.column ?? 0));
