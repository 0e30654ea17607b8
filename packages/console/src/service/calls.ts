import { ApiError, PallmistClient, UnreachableError } from '@pallmist/api';

/** The service that the console came from; the session’s cookie says who asks. */
export const client = new PallmistClient({ base: '' });

/** What a failed call says to people. */
export function explain(error: unknown): string {
  if (error instanceof ApiError) return error.message;
  if (error instanceof UnreachableError) return 'The service does not answer. Check that it is running. Nothing that you typed is lost.';
  return 'Something unexpected happened in the console. Nothing that you typed is lost.';
}

/** Whether a failed call means that nobody is signed in to this console. */
export const needsSignIn = (error: unknown): boolean => error instanceof ApiError && error.status === 401;

/** What a link to the console holds behind its “#”, which is taken out of the address at once. */
export function keyInLink(): { kind: 'owner' | 'invited'; key: string } | undefined {
  const [, kind, key] = /^#(key|invited)=([\w-]+)$/.exec(window.location.hash) ?? [];
  if (kind === undefined || key === undefined) return undefined;
  window.history.replaceState(null, '', window.location.pathname + window.location.search);
  return { kind: kind === 'key' ? 'owner' : 'invited', key };
}

/** Saves a text as a file on the builder’s machine. */
export function download(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
