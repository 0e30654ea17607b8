import { readAddress, readValues, SealBook, writeAddress, type CompiledApp } from '@pallmist/address/pages';
import type { AppDefinition } from '../../definition/app-definition.ts';
import type { FormerPages } from './former-pages.ts';
import { nearestBeginning, probablePage } from './probable-page.ts';

/**
 * What an address does today.
 * - `works`: it opens its page;
 * - `moved`: it leads to today's address of its page;
 * - `noted`: its page opens without a value, and says so;
 * - `refused`: its page refuses a value, or lacks one;
 * - `gone`: the app declares that it is gone, or its page was removed;
 * - `unknown`: no edition knows it;
 * - `sealed`: it holds a sealed value, which only the service opens.
 */
export type AuditVerdict = 'works' | 'moved' | 'noted' | 'refused' | 'gone' | 'unknown' | 'sealed';

export interface AuditedAddress {
  verdict: AuditVerdict;
  page?: string;
  /** Why it does not work, in words. */
  reason?: string;
  /** Where it leads, or what was probably meant. */
  to?: string;
}

/** Whether an address does not work as it should. */
export const isBroken = ({ verdict }: AuditedAddress): boolean => ['noted', 'refused', 'gone', 'unknown'].includes(verdict);

/** Tells what an address does in an app. @param former the readers of earlier editions, where they are known */
export function audit(address: string, definition: AppDefinition, compiled: CompiledApp, former?: FormerPages): AuditedAddress {
  // Nearly all addresses work, and there may be many.
  const read = readValues(compiled, address);
  if (read?.isRight === true && !read.former && !read.strays) return { verdict: 'works', page: read.page };
  const reading = readAddress(compiled, address);
  const page = reading.page === undefined ? {} : { page: reading.page };
  const problem = reading.problems.find(({ severity, code }) => severity !== 'note' && code !== 'undeclared');
  const reason = problem === undefined ? {} : { reason: problem.message };
  if (reading.problems.some(({ code }) => code === 'not-opened')) return { verdict: 'sealed', ...page };
  switch (reading.status) {
    case 'found': {
      if (problem !== undefined) return { verdict: 'noted', ...page, ...reason };
      const to = reading.former ? writeAddress(compiled, reading.page ?? '', reading.values).address : undefined;
      return to === undefined ? { verdict: 'works', ...page } : { verdict: 'moved', ...page, to };
    }
    case 'refused':
      return { verdict: 'refused', ...page, ...reason };
    case 'gone':
      return { verdict: 'gone', ...reason };
    default: {
      const past = former?.find(address, { definition, compiled, seals: new SealBook() });
      if (past === 'removed') return { verdict: 'gone', reason: 'The page was removed.' };
      if (past !== undefined) return { verdict: 'moved', to: past.to };
      const path = address.replace(/[?#].*$/s, '');
      const meant = probablePage(path, definition, compiled)?.address ?? nearestPath(path, definition, compiled.mount);
      return { verdict: 'unknown', ...reason, ...(meant === undefined ? {} : { to: meant }) };
    }
  }
}

/** The path of a page that was probably meant. */
function nearestPath(path: string, definition: AppDefinition, mount: string): string | undefined {
  const near = nearestBeginning(path.slice(mount.length).split('/').slice(0, 2).join('/'), definition);
  return near === undefined ? undefined : mount + near;
}
