import { readFileSync } from 'node:fs';

const { version: ownVersion } = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8')) as { version: string };

/** Version of the service. */
export const version = ownVersion;
