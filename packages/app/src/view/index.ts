export { commonShows } from '../components/common-shows.ts';
export { directionOf, isTranslated, sayIn, type PhraseTable, type Say } from '../languages/say.ts';
export type { Phrase } from '../languages/phrases.ts';
export { formAddress, pathTemplate } from './form-address.ts';
export { componentsIn } from '../components/inner-content.ts';
export type { BoxesNode, BoxNode, RangeNode } from '../components/input/show.ts';
export { drawn } from '../components/drawing/show.ts';
export type { TableNode } from '../components/table/show.ts';
export type { NodeOf } from '../components/all-shows.ts';
export type { ComponentName } from '../components/kinds.ts';
export { optionsName } from '../components/shared/options.ts';
export type { Figure } from '../definition/figures.ts';
export type { Component } from '../definition/app-definition.ts';
export { Evaluator, isPlainPath, type EvaluateCel } from '../expressions/evaluator.ts';
export { celWith, type Programs } from '../expressions/program.ts';
export { arrive, type Arrival } from './arrival.ts';
export {
  languageOf,
  listedRecords,
  planLoad,
  scopeBeforeLoad,
  type LoadPlan,
  type PlannedCondition,
  type PlannedRead,
} from './load-plan.ts';
export type {
  AppPart,
  RequestContext,
  FieldValue,
  FormState,
  PreviousPage,
  PageData,
  PagePayload,
  ReadData,
  RecordData,
  ValueCount,
} from './page-payload.ts';
export type { Anchor, Box, BoxLimits, ChangeAnchor, KeepingForm, ParameterBox } from './node-parts.ts';
export { showPage } from './show-page.ts';
export type { ShownPage } from './shown-page.ts';
export type { ShowTools } from './tools.ts';
export type { AnyNode, ShowTable, ViewContext } from './view-context.ts';
