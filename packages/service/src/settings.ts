import { z } from 'zod';

const schema = z.object({
  PALLMIST_PORT: z.coerce.number().int().min(0).max(65535).default(4680),
  PALLMIST_HOST: z.string().min(1).default('127.0.0.1'),
  PALLMIST_DATA: z.string().min(1).default('pallmist-data'),
  PALLMIST_PUBLIC_URL: z.url({ protocol: /^https?$/ }).optional(),
  PALLMIST_MOST_AT_ONCE: z.coerce.number().int().min(1).max(100_000).default(500),
  PALLMIST_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
});

/** How the service is run. Comes from the environment. */
export interface Settings {
  /** 0 takes any free port. */
  port: number;
  host: string;
  /** Directory of the database and the keys; made if missing. */
  data: string;
  /** Where the public reaches the service, when that is not its own host and port. */
  publicUrl: string | undefined;
  /** Requests that are answered at the same time; beyond that a page says that the service is busy. */
  mostAtOnce: number;
  log: 'silent' | 'error' | 'warn' | 'info' | 'debug';
}

/** A reason not to start, said in one sentence for people. */
export class StartError extends Error {}

const rules: Record<string, string> = {
  PALLMIST_PORT: 'a whole number from 0 to 65535',
  PALLMIST_HOST: 'a host name or an IP address',
  PALLMIST_DATA: 'a directory',
  PALLMIST_PUBLIC_URL: 'a whole http or https URL',
  PALLMIST_MOST_AT_ONCE: 'a whole number from 1 to 100000',
  PALLMIST_LOG: 'one of silent, error, warn, info, debug',
};

/** @throws StartError that names each setting that is wrong */
export function readSettings(environment: Record<string, string | undefined>): Settings {
  const given = Object.fromEntries(Object.entries(environment).filter(([, value]) => value !== undefined && value !== ''));
  const parsed = schema.safeParse(given);
  if (!parsed.success) {
    const names = [...new Set(parsed.error.issues.map((issue) => String(issue.path[0])))];
    throw new StartError(
      names.map((name) => `${name} is “${environment[name] ?? ''}”; it should be ${rules[name] ?? 'another value'}.`).join(' '),
    );
  }
  const { PALLMIST_PORT, PALLMIST_HOST, PALLMIST_DATA, PALLMIST_PUBLIC_URL, PALLMIST_MOST_AT_ONCE, PALLMIST_LOG } = parsed.data;
  return {
    port: PALLMIST_PORT,
    host: PALLMIST_HOST,
    data: PALLMIST_DATA,
    publicUrl: PALLMIST_PUBLIC_URL,
    mostAtOnce: PALLMIST_MOST_AT_ONCE,
    log: PALLMIST_LOG,
  };
}
