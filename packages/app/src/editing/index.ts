/** What a builder does to an app, as JSON Patches, and what an editor says of it. No interface code, no text of an app file. */
export * from './address-shape.ts';
export * from './app-map.ts';
export * from './available-values.ts';
export * from './block-edits.ts';
export * from './collection-edits.ts';
export { comparePatch, placesMeet, touchedPlaces } from './compare-data.ts';
export * from './component-properties.ts';
export * from './collection-shown-by.ts';
export * from './condition-rows.ts';
export * from './content-edits.ts';
export { describeComponent, describePlace, pageTitle, type DescribedPlace } from './describe-place.ts';
export * from './fields-to-choose.ts';
export * from './guess-collection.ts';
export { identifierOf, freeName, slugOf } from './names.ts';
export * from './page-edits.ts';
export * from './pages-for-collection.ts';
export * from './parameter-edits.ts';
export { invertPatch, patchData, valueAt } from './patch-data.ts';
export * from './present-values.ts';
export * from './rows-to-send.ts';
export { missingSamples, sampleAddress, type MissingSample } from './sample-address.ts';
export { setValue } from './set-value.ts';
export * from './uses.ts';
export { describeChanges, type Change } from '../editions/describe-changes.ts';
export { renameCollection, placesOfCollection } from '../definition/rename/rename-collection.ts';
export { figureOf } from '../definition/figures.ts';
export { renameField } from '../definition/rename/rename-field.ts';
export { renameChoice } from '../definition/rename/rename-choice.ts';
export { renamePage } from '../definition/rename/rename-page.ts';
export { renameParameter } from '../definition/rename/rename-parameter.ts';
export { typefaces } from '../definition/typefaces.ts';
export { expandBlocks } from '../definition/blocks/expand-blocks.ts';
export { AppChecker } from '../definition/check/app-checker.ts';
export type { CheckedApp } from '../definition/check/check-definition.ts';
export { componentKinds, kindOf } from '../components/kinds.ts';
export { innerContent } from '../components/inner-content.ts';
export { walkContent, formOf } from '../components/walk-content.ts';
export { countProblems, mayPublish } from '../editions/publishable.ts';
export { parameterTypeNames, simpleTypeNames } from '../types/names.ts';
export { reasons, type Reason } from '../gate/pass.ts';
export { pageScopeTypes } from '../expressions/page-scope.ts';
export { ExpressionChecker } from '../expressions/check-expression.ts';
export type {
  AppDefinition,
  CollectionDefinition,
  Component,
  FieldDefinition,
  FigureDefinition,
  LinkDefinition,
  LookDefinition,
  MailDefinition,
  PageDefinition,
  ReadDefinition,
} from '../definition/app-definition.ts';
export { computedScopeTypes } from '../records/computed.ts';
export { fieldText } from '../records/field-value.ts';
export { declareRecordBack, declareRecordGone, hasAddresses } from '../records/gone-keys.ts';
export { mermaidMap } from './mermaid-map.ts';
