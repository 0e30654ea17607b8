import { allParameterTypes } from '../compile-with-all-types.ts';

export type ParameterTypeName = keyof typeof allParameterTypes;
/** The types that a parameter can have. */
export const parameterTypeNames = Object.keys(allParameterTypes) as [ParameterTypeName, ...ParameterTypeName[]];
/** The types whose values a list can hold. */
export const simpleTypeNames = parameterTypeNames.filter((name) => allParameterTypes[name].inLists) as [
  ParameterTypeName,
  ...ParameterTypeName[],
];
