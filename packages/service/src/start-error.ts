/** A reason not to start, in one sentence for people. */
export class StartError extends Error {}
