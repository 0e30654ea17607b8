import { ApiError, PallmistClient, UnreachableError } from '@pallmist/api';

/** The service that the console came from; the session’s cookie says who asks. */
export const client = new PallmistClient({ base: '' });

/** What a failed call says to people. */
export function explain(error: unknown): string {
  if (error instanceof ApiError) return error.message;
  if (error instanceof UnreachableError) return 'The service does not answer. Is it still running? Nothing that you typed is lost.';
  return 'Something unexpected happened in the console. Nothing that you typed is lost.';
}

/** Uses the key of a one-time link, which stands after “#”, and takes it out of the address at once. */
export async function enterByLink(): Promise<string | undefined> {
  const key = /^#key=([\w-]+)$/.exec(window.location.hash)?.[1];
  if (key === undefined) return undefined;
  window.history.replaceState(null, '', window.location.pathname + window.location.search);
  try {
    await client.call('enterConsole', {}, { key });
    return undefined;
  } catch (error) {
    return explain(error);
  }
}
