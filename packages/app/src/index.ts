export * from './address.ts';
export { allParameterTypes, compileApp } from './compile-with-all-types.ts';
export {
  appFile,
  appFileJsonSchema,
  type AppDefinition,
  type CollectionDefinition,
  type FieldDefinition,
  type PageDefinition,
} from './definition/app-schema.ts';
export { checkAppFile, type CheckedApp } from './definition/check/check-app.ts';
export { linearPattern, linearSearch, PatternNotLinear, type LinearPattern } from '@pallmist/address/patterns';
export { parameterTypeNames, simpleTypeNames } from './types/names.ts';
export { fixSource } from './definition/fix.ts';
export { patchSource } from './definition/patch.ts';
export { changeAddress } from './definition/rename/change-address.ts';
export { renameChoice } from './definition/rename/rename-choice.ts';
export { renamePage } from './definition/rename/rename-page.ts';
export { renameParameter } from './definition/rename/rename-parameter.ts';
export { listFormChanges } from './editions/list-forms.ts';
export { countProblems, mayPublish } from './editions/publishable.ts';
export { pageScopeTypes } from './expressions/page-scope.ts';
export { evaluateCel } from './expressions/cel.ts';
export { admissionOf, passGate, type Admission, type Passage, type Person, type Reason } from './gate/pass.ts';
export { enterAddress, followBack, ownNames, ownValue, reasonIn, signInAddress, staysOnSite } from './gate/way-back.ts';
export { composeEntryMail, type WrittenMail } from './mails/compose.ts';
export { mailAddress } from './mails/mail-address.ts';
export { nextSerial, serialParts, serialProblem } from './records/serial.ts';
export { asParameter, fieldReader, fieldText, type FieldReader, type PlainRecord, type PlainValue } from './records/field-value.ts';
export { fieldName, planSave, type FieldProblems, type SavePlan, type SaveRequest } from './records/plan-save.ts';
export { formParts } from './view/form-parts.ts';
export { signUpForm } from './view/components/sign-up.ts';
export { defaultKilobytes, fileNameIn, fileProblem, mediaTypeOf } from './records/file-value.ts';
export { fileFieldsOf, formNamesOf, sentForm, type SentForm } from './view/save-request.ts';
export { markOf } from './records/seen.ts';
export { appPartFor } from './view/app-part.ts';
export { cutRecord, type FieldTree } from './view/field-tree.ts';
export { fieldsOn, savedFields, type PageFields } from './view/page-fields.ts';
export { dataToSend, pagePart, type PagePart } from './view/page-part.ts';
export { isSettledBeforeLoad, isSettledByBrowser, parametersAsked, settlePage } from './view/settle-page.ts';
export { rootsOf } from './expressions/paths.ts';
export { programsFor } from './view/page-programs.ts';
export * from './view/index.ts';
