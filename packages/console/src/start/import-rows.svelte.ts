import { client, explain } from '../service/calls.ts';
import { asCsv } from './read-file.ts';
import type { RowsToSend } from '@pallmist/app/editing';

/** Rows that are sent at a time, so that progress shows and the import can be stopped. */
const batch = 1000;

/** Brings rows into a collection, a batch at a time. */
export class RowImport {
  done = $state(0);
  total = $state(0);
  failure: string | undefined = $state();
  #stopped = false;

  stop(): void {
    this.#stopped = true;
  }

  /** @returns whether all of them are in */
  async run(app: string, collection: string, { header, lines }: RowsToSend): Promise<boolean> {
    this.total = lines.length;
    this.done = 0;
    this.failure = undefined;
    for (let start = 0; start < lines.length && !this.#stopped; start += batch) {
      const text = new TextEncoder().encode(asCsv([header, ...lines.slice(start, start + batch)]));
      try {
        await client.importText(app, collection, text);
      } catch (error) {
        this.failure = explain(error);
        return false;
      }
      this.done = Math.min(lines.length, start + batch);
    }
    return !this.#stopped;
  }
}
