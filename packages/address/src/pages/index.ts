/** The addresses of an app with several pages: found, read, written, changed, taken apart for drawing. */
export type { CallContext } from './call-context.ts';
export { changeValues, type AppChange } from './change-values.ts';
export type {
  AddressableApp,
  AddressablePage,
  Claim,
  CompiledApp,
  CompiledPage,
  CompiledParameter,
  FormerAddress,
  GoneAddress,
  GoneClaim,
} from './compiled-app.ts';
export { addressParts, templateParts, type AddressPart } from './parts.ts';
export { PageFinder } from './page-finder.ts';
export { claimOf, readAddress, readValues, type ReadValues } from './read-address.ts';
export { localTime } from '../time-zone.ts';
export { unprotect } from '../travel.ts';
export { repairAddress, withoutMarks } from './repair-address.ts';
export { readTexts } from './read-texts.ts';
export type { ParameterReading, Reading } from './reading.ts';
export { rejectItems, rejectValue } from './reject-value.ts';
export { SealBook, type SealedValue } from './seal-book.ts';
export type { Seals } from './call-context.ts';
export { readPlainText, Refusal, refusalIn, valueFrom, writePlainText } from './value-text.ts';
export { lengthBudget, writeAddress, type WriteOptions, type Written } from './write-address.ts';
export { sentenceOf } from '../sentences/index.ts';
export { decodeForShow } from '../percent.ts';
export { longestAddress } from '../scan.ts';
export type { Origin } from '../settle.ts';
