import type { AppDefinition } from '@pallmist/app/editing';
import { client } from '../service/calls.ts';

/**
 * Copies the records of an app into a copy of it. What refers to records of another collection comes after them.
 * @param progress called before each collection
 * @returns names of the collections whose records could not be copied
 */
export async function copyRecords(
  from: string,
  to: string,
  definition: AppDefinition,
  progress: (collection: string) => void,
): Promise<string[]> {
  let left = Object.keys(definition.collections ?? {});
  for (let before = left.length + 1; left.length > 0 && left.length < before;) {
    before = left.length;
    const failed: string[] = [];
    for (const collection of left) {
      progress(collection);
      if (!(await copyCollection(from, to, collection))) failed.push(collection);
    }
    left = failed;
  }
  return left;
}

async function copyCollection(from: string, to: string, collection: string): Promise<boolean> {
  try {
    const bytes = await new Response(await client.exportRecords(from, collection, 'csv')).arrayBuffer();
    const [, second = ''] = new TextDecoder().decode(bytes.slice(0, 10_000)).split('\n');
    if (second.trim() !== '') await client.importText(to, collection, new Uint8Array(bytes));
    return true;
  } catch {
    return false;
  }
}
