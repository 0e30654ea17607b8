/** Declarations, as an app file has them: made into pages that can be read and written, and checked. */
export { compileApp, withContext, type CompileOptions } from './compile.ts';
export type {
  ChoicesLists,
  CollectionShape,
  GoneValue,
  ItemDeclaration,
  Json,
  ParameterDeclaration,
  ParameterValue,
  Values,
} from './declaration.ts';
export { checkPages, describePages } from './describe.ts';
export { DeclarationError, type DeclaredType, type DeclaredTypes, type CompileContext } from './declared-type.ts';
export { formerTemplate, withTemplate } from './former-address.ts';
export { formatTemplate, namePattern, parseTemplate, type AddressTemplate, type TemplateSegment } from './parse-template.ts';
export { fromPointer, ProblemError, quote, toPointer, withArticle, type PatchOperation, type Problem, type Severity } from './problem.ts';
export { isRelativeDate, resolveRelativeDate, todayIn } from './relative-date.ts';
export { parameterTypes } from './types.ts';
export { rangeTypeNames } from '../types/range.ts';
