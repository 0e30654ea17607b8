import type { Problem } from '@pallmist/address/declare';
import { appFile } from '../app-file-schema.ts';
import { expandBlocks } from '../blocks/expand-blocks.ts';
import { problemsAsWritten } from '../blocks/places-in-blocks.ts';
import { shapeProblems } from '../shape-problems.ts';
import { parseSource } from '../source-map.ts';
import { checkDefinition, type CheckedApp } from './check-definition.ts';

/** Checks the text of an app file (YAML or JSON). Never throws for what the text says. */
export function checkAppFile(text: string): CheckedApp {
  const source = parseSource(text);
  if (source.problems.some((problem) => problem.severity === 'error')) return { problems: source.problems };
  const expanded = expandBlocks(source.data);
  const located = (problems: readonly Problem[]) =>
    inOrder(
      [...source.problems, ...problemsAsWritten([...expanded.problems, ...problems], expanded, source.data)].map((problem) =>
        source.locate(problem),
      ),
    );
  const parsed = appFile.safeParse(expanded.data);
  if (!parsed.success) return { problems: located(shapeProblems(parsed.error, expanded.data)) };
  const { compiled, problems } = checkDefinition(parsed.data);
  return { definition: parsed.data, compiled, problems: located(problems) };
}

const inOrder = (problems: Problem[]) => problems.sort((a, b) => (a.line ?? 0) - (b.line ?? 0) || (a.column ?? 0) - (b.column ?? 0));
