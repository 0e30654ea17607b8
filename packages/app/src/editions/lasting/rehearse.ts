import { patchData } from '../../editing/patch-data.ts';
import { AppChecker } from '../../definition/check/app-checker.ts';
import type { AppDefinition } from '../../definition/app-definition.ts';
import type { CompiledApp } from '@pallmist/address/pages';
import { Comparison } from './compare.ts';
import type { Found, PromisedPage } from './promised-page.ts';
import type { AddressesInUse } from './addresses-in-use.ts';
import { withAddressesInUse } from './findings-in-use.ts';
import { findingsOf, needsConsent, type Finding } from './findings.ts';
import { possibleRepairs } from './repairs/possible-repairs.ts';
import type { Repair } from './repairs/repair.ts';

/** A finding with the changes that would make it go away. */
export interface RepairableFinding extends Finding {
  repairs: Repair[];
}

/** A draft that is compared: its data, as in the app file, and what they say. */
export interface ComparedDraft {
  data: unknown;
  definition: AppDefinition;
  compiled: CompiledApp;
}

/** What publishing a draft would change for earlier addresses. @param withdrawn promises that were given up before */
export function compareDraft(
  { definition, compiled }: Omit<ComparedDraft, 'data'>,
  versions: readonly PromisedPage[],
  withdrawn?: ReadonlySet<string>,
  inUse: AddressesInUse = {},
): Finding[] {
  const comparison = new Comparison(definition, compiled);
  return withAddressesInUse(findingsOf(comparison.of(versions), definition, withdrawn), comparison, versions, inUse);
}

/**
 * The same with repairs. Each one was tried: after it the finding is gone, and nothing else has come that needs consent.
 * @param formerly the definition of an edition, for putting back what is no more
 */
export async function rehearse(
  draft: ComparedDraft,
  versions: readonly PromisedPage[],
  {
    withdrawn,
    inUse = {},
    formerly,
  }: {
    withdrawn?: ReadonlySet<string>;
    inUse?: AddressesInUse;
    formerly: (edition: number) => Promise<AppDefinition | undefined>;
  },
): Promise<RepairableFinding[]> {
  const { definition, compiled, data } = draft;
  const comparison = new Comparison(definition, compiled);
  const found = comparison.of(versions);
  const findings = withAddressesInUse(findingsOf(found, definition, withdrawn), comparison, versions, inUse);
  const known = new Set(findings.map(({ id }) => id));
  const checker = new AppChecker();
  checker.check(data);
  const helps = (repair: Repair, finding: Finding) => {
    try {
      const patched = checker.check(patchData(data, repair.patch));
      if (!patched.definition || !patched.compiled || patched.problems.some(({ severity }) => severity === 'error')) return false;
      const after = compareDraft({ definition: patched.definition, compiled: patched.compiled }, versions, withdrawn);
      return !after.some(
        (one) =>
          (one.page === finding.page && one.kind === finding.kind && one.parameter === finding.parameter && one.fate === finding.fate) ||
          (needsConsent(one.fate) && !known.has(one.id)),
      );
    } catch {
      return false;
    }
  };
  const repairable: RepairableFinding[] = [];
  for (const finding of findings) {
    const shown = found.find((one) => isOf(one, finding)) as Found;
    const last = finding.editions.at(-1);
    const candidates = possibleRepairs(shown, definition, last === undefined ? undefined : await formerly(last));
    const repairs: Repair[] = [];
    for (const candidate of candidates) {
      if (repairs.some(({ kind }) => kind === 'put-back') && candidate.kind === 'put-back') continue;
      if (helps(candidate, finding)) repairs.push(candidate);
    }
    repairable.push({ ...finding, repairs });
  }
  return repairable;
}

const isOf = (found: Found, { page, fate, kind, parameter, witness }: Finding): boolean =>
  found.version.page === page && found.fate === fate && found.kind === kind && found.parameter === parameter && found.witness === witness;
