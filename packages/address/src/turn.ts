/** Counts reads and writes, so that what a slot holds of an earlier one is told from what it holds of this. */
export let turn = 0;
export const nextTurn = (): number => ++turn;
