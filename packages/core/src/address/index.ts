export { compileApp, type CompileOptions } from './compile.ts';
export type { AddressableApp, AddressablePage, CompiledApp, CompiledPage, CompiledParameter } from './compiled-app.ts';
export { changeValues, type Change } from './change.ts';
export {
  defineApp,
  definePage,
  type LinkValues,
  type OtherReading,
  type PageReading,
  type PageValues,
  type TypedApp,
  type ValueOf,
} from './define.ts';
export { addressParts, templateParts, type AddressPart } from './parts.ts';
export { decodeForShow } from './percent.ts';
export { longestAddress, readAddress } from './read.ts';
export { rejectValue } from './reject-value.ts';
export { SealBook, type SealedValue } from './seal-book.ts';
export type { Seals } from './seals.ts';
export { readTexts } from './read-texts.ts';
export type { Origin, ParameterReading, Reading } from './reading.ts';
export { namePattern, parseTemplate, type AddressTemplate, type TemplateSegment } from './template.ts';
export { valueFrom } from './value-text.ts';
export { lengthBudget, writeAddress, type WriteOptions, type Written } from './write.ts';
export { parameterTypes } from '../parameters/types/index.ts';
export { parameterTypeNames, rangeTypeNames, simpleTypeNames } from '../parameters/declaration.ts';
export type {
  ChoiceDefinition,
  ItemDeclaration,
  Json,
  ParameterDeclaration,
  ParameterTypeName,
  ParameterValue,
  RangeValue,
  SortKey,
  Values,
} from '../parameters/declaration.ts';
export { fromPointer, ProblemError, quote, toPointer, type PatchOperation, type Problem, type Severity } from '../problem.ts';
export { nearest, suggest } from '../near.ts';
