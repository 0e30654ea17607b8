/** What a condition of a read can ask of a field; each condition has one of them. */
export const operators = [
  'equals',
  'contains',
  'startsWith',
  'oneOf',
  'within',
  'before',
  'after',
  'lessThan',
  'moreThan',
  'atMost',
  'atLeast',
  'empty',
] as const;
export type Operator = (typeof operators)[number];

/** The values of a condition’s operators, in the order of `operators`; a condition that is right has one. */
export function operands<Value>(condition: Partial<Record<Operator, Value>>): Value[] {
  return operators.map((operator) => condition[operator]).filter((value): value is Value => value !== undefined);
}

/** Every condition of a read: those that all have to hold, and those of which one has to. */
export const conditionsOf = <Condition>(read: {
  where?: readonly Condition[] | undefined;
  whereAny?: readonly Condition[] | undefined;
}): { key: 'where' | 'whereAny'; index: number; condition: Condition }[] =>
  (['where', 'whereAny'] as const).flatMap((key) => (read[key] ?? []).map((condition, index) => ({ key, index, condition })));
