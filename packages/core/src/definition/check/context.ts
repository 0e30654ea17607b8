import type { CompiledApp } from '../../address/compiled-app.ts';
import { toPointer, type Problem } from '../../problem.ts';
import type { AppDefinition } from '../app-schema.ts';

/** What each part of the check works with. */
export interface CheckContext {
  definition: AppDefinition;
  compiled: CompiledApp;
  problems: Problem[];
  /** Whether a pattern can take exponential time; where nobody can tell, it is not asked. */
  isSlowPattern: ((pattern: string) => boolean) | undefined;
}

export type Place = readonly (string | number)[];

/** Notes a problem at a place of the app file. */
export function report(
  context: CheckContext,
  place: Place,
  problem: Omit<Problem, 'pointer' | 'severity'> & Partial<Pick<Problem, 'severity'>>,
): void {
  context.problems.push({ severity: 'error', ...problem, pointer: toPointer(place) });
}
