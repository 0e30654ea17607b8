export { readSettings, StartError, type Settings } from './settings.ts';
export { startService, type Service } from './start.ts';
