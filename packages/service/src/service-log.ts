import { pino, type Logger } from 'pino';
import type { Settings } from './settings.ts';

/**
 * An error as it is logged: what kind, its sentence, where. Nothing else that it carries: a statement that failed has its
 * parameters, and they are password hashes, mail addresses and one-time links.
 */
export function loggedError(error: unknown): { type: string; message: string; stack: string } {
  if (!(error instanceof Error)) return { type: typeof error, message: 'Something that is no error was thrown.', stack: '' };
  return { type: error.constructor.name, message: error.message, stack: error.stack ?? '' };
}

/** The log of the service, on standard error, a JSON object a line. */
export const serviceLog = (level: Settings['log']): Logger =>
  pino({ level, base: null, timestamp: pino.stdTimeFunctions.isoTime, serializers: { err: loggedError } }, pino.destination(2));
