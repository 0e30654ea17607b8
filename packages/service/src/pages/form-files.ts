import { fileProblem, inEnglish, looksLike, mediaTypeOf, own, type FieldDefinition, type RecordData, type Say } from '@pallmist/app';
import type { HostedApp } from '../apps/hosted-app.ts';
import type { Stores } from '../store/store.ts';
import type { FormBody } from './form-body.ts';

/** Names in the body of a sent form: the file itself, and the wish to have none. The field’s own name holds what is kept. */
const ownName = { file: (field: string) => `~file.${field}`, none: (field: string) => `~none.${field}` };

/** The files that forms send: kept at once, so that nobody has to choose them twice, and a record’s once it is saved. */
export class FormFiles {
  readonly #sent: Stores['sentFiles'];

  constructor({ sentFiles }: Pick<Stores, 'sentFiles'>) {
    this.#sent = sentFiles;
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
    say?: Say,
  ): Promise<Record<string, string>> {
    const problems: Record<string, string> = {};
    for (const [name, field] of Object.entries(fields)) {
      const file = own(files, ownName.file(name));
      const present = own(texts, name) ?? '';
      if (file !== undefined) {
        const problem =
          fileProblem(field, file.name, file.size, say) ??
          (looksLike(mediaTypeOf(file.name), file.bytes) ? undefined : (say ?? inEnglish)('The file is not what its name says.'));
        const kept = problem === undefined ? await this.#sent.keep(app, file.name, file.bytes) : undefined;
        if (kept === undefined) problems[name] = problem ?? 'So many files are under way that there is no room. Please try again later.';
        else texts[name] = kept;
      } else if (own(given, ownName.none(name)) === 'yes') texts[name] = '';
      // The name of a file comes from the form: it is believed only where it is this record’s, or nobody’s yet.
      else if (before && present !== '' && present !== own(before, name) && !(await this.#sent.isLoose(app, present))) {
        texts[name] = '';
        problems[name] = 'The file is not here any more. Please choose it again.';
      }
    }
    return problems;
  }
}
