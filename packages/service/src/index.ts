export { readSettings, type Settings } from './settings.ts';
export { startService, type Service, type StartOptions } from './start.ts';
export { StartError } from './start-error.ts';
export type { Clock } from './clock.ts';
