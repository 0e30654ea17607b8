/** What live state is made of: for `@pallmist/browser`, not for programs. */
export { refusalCode, refusalData, refuse } from './outcome.ts';
export { slotNamed } from './locate.ts';
export { noProblems } from './problem.ts';
export { readHere } from './read.ts';
export type { Slot, Template } from './template.ts';
export { localTime } from './time-zone.ts';
export { protect } from './travel.ts';
export { readTyped, typedTexts } from './typed.ts';
export { join, longestWritten, textFor } from './write.ts';
