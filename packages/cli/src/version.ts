import { readFileSync } from 'node:fs';

/** The version of the command. */
export const { version } = JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8')) as { version: string };
