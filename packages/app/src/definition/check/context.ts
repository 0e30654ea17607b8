import { type Problem, toPointer } from '@pallmist/address/declare';
import type { CompiledApp } from '@pallmist/address/pages';
import type { AppDefinition } from '../app-definition.ts';

/** What each part of the check works with. */
export interface CheckContext {
  definition: AppDefinition;
  compiled: CompiledApp;
  problems: Problem[];
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
