import { fileProblem, type FieldDefinition, type RecordData } from '@pallmist/core';
import type { SentFileStore } from '../store/sent-files.ts';
import type { FormBody } from './form-body.ts';
import type { HostedApp } from './hosted-app.ts';

/** Names in the body of a sent form: the file itself, and the wish to have none. The field’s own name holds what is kept. */
const ownName = { file: (field: string) => `~file.${field}`, none: (field: string) => `~none.${field}` };

/** The files that forms send: kept at once, so that nobody has to choose them twice, and a record’s once it is saved. */
export class FormFiles {
  readonly #sent: SentFileStore;

  constructor(sent: SentFileStore) {
    this.#sent = sent;
  }

  /**
   * Keeps the files of a form, and puts what the record is to hold among its texts.
   * @param texts what was typed, by field; changed
   * @param before the record as it is now; undefined where the form is only held, and looked at again when it is saved
   * @returns what is wrong with the files, by field
   */
  async take(
    { definition: { app } }: HostedApp,
    fields: Record<string, FieldDefinition>,
    { texts: given, files }: FormBody,
    texts: Record<string, string>,
    before: RecordData | undefined,
  ): Promise<Record<string, string>> {
    const problems: Record<string, string> = {};
    for (const [name, field] of Object.entries(fields)) {
      const file = files[ownName.file(name)];
      const present = texts[name] ?? '';
      if (file !== undefined) {
        const problem = fileProblem(field, file.name, file.size);
        const kept = problem === undefined ? await this.#sent.keep(app, file.name, file.bytes) : undefined;
        if (kept === undefined) problems[name] = problem ?? 'So many files are under way that there is no room. Please try again later.';
        else texts[name] = kept;
      } else if (given[ownName.none(name)] === 'yes') texts[name] = '';
      // The name of a file comes from the form: it is believed only where it is this record’s, or nobody’s yet.
      else if (before && present !== '' && present !== before[name] && !(await this.#sent.isLoose(app, present))) {
        texts[name] = '';
        problems[name] = 'The file is not here any more. Please choose it again.';
      }
    }
    return problems;
  }

  /** The record is saved: its files are its own, and those that it had before are gone. */
  async settle({ definition, draft }: HostedApp, collection: string, before: RecordData, after: RecordData): Promise<void> {
    // What a draft's forms save is a copy: the files of the records themselves stay.
    if (draft) return;
    for (const [name, { type }] of Object.entries(definition.collections?.[collection]?.fields ?? {})) {
      const [old, now] = [before[name], after[name]];
      if (type !== 'file' || old === now) continue;
      if (typeof now === 'string') await this.#sent.settle(definition.app, now);
      if (typeof old === 'string') await this.#sent.drop(definition.app, old);
    }
  }
}
