export * from './address/index.ts';
export { allParameterTypes, compileApp } from './compile-with-all-types.ts';
export {
  appFile,
  appFileJsonSchema,
  type AppDefinition,
  type CollectionDefinition,
  type FieldDefinition,
  type PageDefinition,
} from './definition/app-schema.ts';
export { checkAppFile } from './check-with-everything.ts';
export type { CheckedApp } from './definition/check/check-app.ts';
export { mendSource } from './definition/mend.ts';
export { patchSource } from './definition/patch.ts';
export { renameParameter } from './definition/rename-parameter.ts';
export { countProblems, mayPublish } from './editions/publishable.ts';
export { todayIn } from './parameters/relative-date.ts';
export { pageScopeTypes } from './expressions/page-scope.ts';
export { evaluateCel } from './expressions/cel.ts';
export { admissionOf, passGate, type Admission, type Passage, type Person, type Reason } from './gate/pass.ts';
export { enterAddress, followBack, ownNames, ownValue, reasonIn, signInAddress, staysOnSite } from './gate/way-back.ts';
export { composeEntryMail } from './mails/compose.ts';
export { nextSerial, serialParts } from './records/serial.ts';
export { asParameter, fieldReader, fieldText, type PlainRecord, type PlainValue } from './records/field-value.ts';
export { fieldName, planSave, type FieldProblems, type SavePlan, type SaveRequest } from './records/plan-save.ts';
export { formParts } from './view/form-parts.ts';
export { signUpForm } from './view/components/sign-up.ts';
export { defaultKilobytes, fileNameIn, fileProblem, mediaTypeOf } from './records/file-value.ts';
export { fileFieldsOf, sentForm, type SentForm } from './view/save-request.ts';
export { markOf } from './records/seen.ts';
export { appPartFor, fieldsNamedOn, usesPacked, usesSealed } from './view/app-part.ts';
export { programsFor } from './view/page-programs.ts';
export * from './view/index.ts';
