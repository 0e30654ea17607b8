import { AppChecker, checkAppFile, DraftDocument, type CheckedApp, type PatchOperation } from '@pallmist/app';
import type { DraftRow } from '../store/apps.ts';

/** Drafts that are kept parsed at a time. */
const mostKept = 20;

interface KeptDraft {
  revision: number;
  document: DraftDocument | undefined;
  checker: AppChecker;
  checked: CheckedApp | undefined;
  text: string;
}

/** Drafts that are being worked on, parsed: a change of a large one neither parses nor checks the whole again. */
export class DraftKeeper {
  readonly #kept = new Map<string, KeptDraft>();

  /** What a draft says, in today’s form; undefined where its text is not well-formed. */
  data(row: DraftRow): unknown {
    return this.#keep(row).document?.data;
  }

  /** A draft, checked. Its problems have no lines where it was changed by patches. */
  checked(row: DraftRow): CheckedApp {
    const kept = this.#keep(row);
    return (kept.checked ??= kept.document === undefined ? checkAppFile(kept.text) : kept.checker.check(kept.document.data));
  }

  /**
   * The text of a draft after a patch. Nothing is kept until `follow` says that it is on disk.
   * @throws ProblemError where the patch cannot be carried out; then nothing has changed
   */
  patch(row: DraftRow, patch: readonly PatchOperation[]): { text: string; follow: (saved: DraftRow) => void; undo: () => void } {
    const kept = this.#keep(row);
    if (kept.document === undefined) kept.document = new DraftDocument(row.source);
    kept.document.apply(patch);
    kept.checked = undefined;
    return {
      text: kept.document.text,
      follow: (saved) => {
        kept.revision = saved.revision;
        kept.text = saved.source;
      },
      undo: () => this.#kept.delete(row.app),
    };
  }

  #keep(row: DraftRow): KeptDraft {
    const present = this.#kept.get(row.app);
    if (present?.revision === row.revision) return present;
    let document: DraftDocument | undefined;
    try {
      document = new DraftDocument(row.source);
    } catch {
      // Its text is looked at by the check, which says what is wrong.
    }
    const kept: KeptDraft = {
      revision: row.revision,
      document,
      checker: present?.checker ?? new AppChecker(),
      checked: undefined,
      text: row.source,
    };
    this.#kept.delete(row.app);
    if (this.#kept.size >= mostKept) this.#kept.delete(this.#kept.keys().next().value ?? '');
    this.#kept.set(row.app, kept);
    return kept;
  }
}
