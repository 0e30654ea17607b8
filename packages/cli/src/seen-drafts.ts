import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';

/** What an app file had in common with the draft of its app when it was last pulled or pushed. */
export interface SeenDraft {
  revision: number;
  /** SHA-256 of the text, in hexadecimal. */
  digest: string;
}

/** The folder beside the app files in which the command keeps what it has seen. */
const folderName = '.pallmist';

/** What was last pulled or pushed, by the service, the app and the file; kept beside the file. */
export class SeenDrafts {
  readonly #path: string | undefined;
  readonly #key: string;

  /** @param file the app file; of standard input nothing is kept */
  constructor(file: string, service: string, app: string) {
    this.#path = file === '-' ? undefined : join(dirname(file), folderName, 'drafts.json');
    this.#key = `${service.replace(/\/+$/, '')} ${app} ${basename(file)}`;
  }

  get(): SeenDraft | undefined {
    const found = this.#all().get(this.#key);
    return isSeen(found) ? found : undefined;
  }

  /** @returns what to tell where it cannot be kept */
  keep(revision: number, source: string): string | undefined {
    if (this.#path === undefined) return undefined;
    const all = this.#all().set(this.#key, { revision, digest: digestOf(source) });
    try {
      const folder = dirname(this.#path);
      mkdirSync(folder, { recursive: true });
      const ignored = join(folder, '.gitignore');
      // What one machine has seen says nothing to another.
      if (!existsSync(ignored)) writeFileSync(ignored, '*\n');
      writeFileSync(this.#path, JSON.stringify(Object.fromEntries(all), null, 2) + '\n');
      return undefined;
    } catch (error) {
      return `${this.#path} cannot be written (${(error as Error).message}), so the next push does not know which draft this file was made from.`;
    }
  }

  #all(): Map<string, unknown> {
    if (this.#path === undefined) return new Map();
    try {
      return new Map(Object.entries(JSON.parse(readFileSync(this.#path, 'utf8')) as object));
    } catch {
      return new Map();
    }
  }
}

export const digestOf = (source: string): string => createHash('sha256').update(source).digest('hex');

function isSeen(value: unknown): value is SeenDraft {
  if (typeof value !== 'object' || value === null || !('revision' in value) || !('digest' in value)) return false;
  return Number.isSafeInteger(value.revision) && typeof value.digest === 'string';
}
