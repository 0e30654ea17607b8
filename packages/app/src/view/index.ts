export { componentsIn } from '../definition/inner-content.ts';
export { Evaluator, isPlainPath, type EvaluateCel } from '../expressions/evaluator.ts';
export { celWith, type Programs } from '../expressions/program.ts';
export { arrive, type Arrival } from './arrival.ts';
export { planLoad, scopeBeforeLoad, type LoadPlan, type PlannedCondition, type PlannedRead } from './load-plan.ts';
export { optionsName } from './options.ts';
export type {
  AppPart,
  Circumstances,
  FieldValue,
  FormState,
  PreviousPage,
  PageData,
  PageMaterial,
  ReadData,
  RecordData,
} from './material.ts';
export type * from './nodes.ts';
export { showPage } from './show-page.ts';
export type { ShowTools } from './tools.ts';
