/** A choice's label, or its label with the values that stood for it in the past. */
export type ChoiceDefinition = string | { label: string; formerValues?: readonly string[] | undefined };

/** One key of a sort order. */
export interface SortKey<Field extends string = string> {
  readonly field: Field;
  readonly descending: boolean;
}

/** From one end to the other, both included; a missing end is open. */
export interface Range<End extends number | string = number | string> {
  readonly from?: End;
  readonly to?: End;
}
