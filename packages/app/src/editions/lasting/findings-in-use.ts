import { SealBook, type Seals } from '@pallmist/address/pages';
import type { AddressesInUse } from './addresses-in-use.ts';
import type { Comparison, DifferenceOf } from './compare.ts';
import type { Finding } from './findings.ts';
import { FormerPages } from './former-pages.ts';
import { openSeals } from './open-seals.ts';
import type { PromisedPage } from './promised-page.ts';

/** Findings with the addresses in use that they concern. */
export function withAddressesInUse(
  findings: readonly Finding[],
  comparison: Comparison,
  versions: readonly PromisedPage[],
  { printed = [], short = [], sealed = [] }: AddressesInUse,
): Finding[] {
  if (findings.length === 0 || (printed.length === 0 && short.length === 0)) return [...findings];
  const former = new FormerPages(versions, new Set());
  const book = new SealBook(sealed);
  const seals: Seals = {
    ...openSeals,
    open: (page, parameter, text) => openSeals.open(page, parameter, text) ?? book.open(page, parameter, text),
  };
  const lostPrinted = printed.map((one) => ({ one, lost: comparison.ofAddress(one.address, former, seals) }));
  const lostShort = short.map((one) => ({ one, lost: comparison.ofShort(one, former) }));
  const concerned = <One>(finding: Finding, all: { one: One; lost: readonly DifferenceOf[] }[]): One[] =>
    all.filter(({ lost }) => lost.some((difference) => concerns(finding, difference))).map(({ one }) => one);
  return findings.map((finding) => {
    const lost = concerned(finding, lostShort);
    return {
      ...finding,
      printed: [...concerned(finding, lostPrinted), ...lost.flatMap((one) => one.printed ?? [])],
      short: lost.map(({ code }) => code),
    };
  });
}

const concerns = ({ kind, fate, page, parameter }: Finding, { version, difference }: DifferenceOf): boolean =>
  difference.kind === kind &&
  (kind === 'app-moved' || (difference.fate === fate && version.page === page && difference.parameter === parameter));
