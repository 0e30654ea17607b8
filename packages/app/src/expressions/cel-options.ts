/** How the engine is set up for the check and at run time: the same, so that what the check passes can be evaluated. */
export const celOptions = {
  enableOptionalTypes: true,
  // A list may hold values of several types (CEL specification, “Aggregates”): which ones, some lists tell only at run time.
  homogeneousAggregateLiterals: false,
} as const;
