/** Links that last: what addresses of earlier editions would mean after publishing. docs/links-that-last.md tells it whole. */
export { addressesIn, fromQuotedPrintable, type AddressInText } from './addresses-in-text.ts';
export { audit, isBroken, type AuditedAddress, type AuditVerdict } from './audit.ts';
export { promisedPages, type PromisedPage } from './promised-page.ts';
export { FormerPages, type FormerReading } from './former-pages.ts';
export type { AddressesInUse, PrintedAddress, ShortInUse } from './addresses-in-use.ts';
export { fates, needsConsent, type Finding } from './findings.ts';
export { probablePage, type ProbablePage } from './probable-page.ts';
export type { DifferenceKind, Fate } from './judge.ts';
export { pageVersions, type PageVersion } from './page-version.ts';
export { compareDraft, rehearse, type ComparedDraft, type RepairableFinding } from './rehearse.ts';
export { secondClassChanges, type SecondClassChange } from './second-class.ts';
export type { Repair } from './repairs/repair.ts';
