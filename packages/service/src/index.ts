export { readSettings, type Settings } from './settings.ts';
export { startService, type Service, type StartOptions } from './start.ts';
export { StartError } from './start-error.ts';
export type { Clock } from './clock.ts';
export { Passwords } from './people/passwords.ts';
export { backUp, type BackupManifest } from './upkeep/backup.ts';
export { restore, type Restored } from './upkeep/restore.ts';
export { examine, type Finding } from './upkeep/doctor.ts';
