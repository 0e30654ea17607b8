import type { PallmistClient } from '@pallmist/api';
import type { AppDefinition } from '@pallmist/app';

interface RemovedRecord {
  app: string;
  collection: string;
  key: string;
  /** The texts of its fields. */
  texts: Record<string, string>;
}

/**
 * Declares a removed record as gone in the draft of its app.
 * @param sentence for visitors who come for it; the service’s own when empty
 * @returns at how many parameters it is declared, and what to tell the owner
 */
export async function declareGone(
  client: PallmistClient,
  { app, collection, key, texts }: RemovedRecord,
  sentence: string,
): Promise<{ declared: number; words: string }> {
  const { data, revision } = await client.call('getDraft', { app });
  if (data === undefined) return { declared: 0, words: 'The draft is not well-formed YAML, so the record is not declared as gone.' };
  // Only this command needs it.
  const { declareRecordGone } = await import('@pallmist/app');
  const patch = declareRecordGone(data as AppDefinition, collection, texts, sentence === '' ? {} : { reason: sentence });
  if (patch.length === 0) return { declared: 0, words: `No address of ${app} names it, so there is nothing to declare.` };
  await client.call('changeDraft', { app }, { revision, patch, what: `Declared ${key} as gone` });
  return { declared: patch.length, words: `Once you publish ${app}, links to ${key} tell visitors that it is gone.` };
}
