import type { AnswerOf, Rehearsal } from '@pallmist/api';
import {
  checkAppFile,
  compareDraft,
  compileApp,
  mayPublish,
  needsConsent,
  promisedPages,
  secondClassChanges,
  type AppDefinition,
  type Finding,
} from '@pallmist/app';
import { Refused } from '../api/problem-details.ts';
import { visitsOf, type Ledger } from '../ledger/ledger.ts';
import type { DraftRow } from '../store/apps.ts';
import type { Store } from '../store/store.ts';
import type { DraftKeeper } from './draft-keeper.ts';
import type { LinkPromises } from './link-promises.ts';

export interface RehearsalParts {
  store: Store;
  keeper: DraftKeeper;
  promises: LinkPromises;
  ledger: Ledger;
}

/** Tells what addresses would mean after publishing, and what they mean in another edition. */
export class Rehearsals {
  readonly #store: Store;
  readonly #keeper: DraftKeeper;
  readonly #promises: LinkPromises;
  readonly #ledger: Ledger;

  constructor({ store, keeper, promises, ledger }: RehearsalParts) {
    this.#store = store;
    this.#keeper = keeper;
    this.#promises = promises;
    this.#ledger = ledger;
  }

  /** What publishing the draft would change for addresses of earlier editions, with repairs; and what was agreed to before. */
  async rehearse(app: string): Promise<Rehearsal> {
    const row = await this.#draftRow(app);
    const { definition, compiled, problems } = checkAppFile(row.source);
    if (!definition || !compiled || !mayPublish(problems))
      throw new Refused(422, 'The draft has errors, so its addresses cannot be compared with those of earlier editions.', problems);
    const findings = await this.#promises.rehearse({ source: row.source, definition, compiled });
    const consents = await this.#promises.consents(app);
    const seen = await this.#ledger.lately(app, 30);
    const [newest] = await this.#store.apps.editionsOf(app);
    const served = newest && (await this.#definitionOf(app, newest.number));
    return {
      revision: row.revision,
      others: served === undefined ? [] : secondClassChanges(served, definition),
      findings: findings.map(({ promises: _, editions, printed, short, ...finding }) => ({
        ...finding,
        editions: [...editions],
        short: [...short],
        printed: printed.map(({ address, note }) => ({ address, note })),
        needsConsent: needsConsent(finding.fate),
        visits: visitsOf(finding, seen),
      })),
      consents: consents.map(({ edition, words, by, at, why }) => ({ edition, words, by, at, why })),
    };
  }

  /** The findings of a draft alone. A draft with errors has none that can be told. */
  async findings(app: string): Promise<AnswerOf<'getFindings'>> {
    const row = await this.#draftRow(app);
    const { definition, compiled } = this.#keeper.checked(row);
    const { findings } = definition && compiled ? await this.#promises.check({ definition, compiled }, []) : { findings: [] };
    return { revision: row.revision, findings: findings.map(asTold) };
  }

  /** What addresses of an edition mean in a later one. */
  async compareEditions(app: string, number: number, later: number): Promise<AnswerOf<'compareEditions'>> {
    const [before, after] = await Promise.all([this.#definitionOf(app, number), this.#definitionOf(app, later)]);
    const missing = before === undefined ? number : later;
    if (before === undefined || after === undefined) throw new Refused(404, `There is no edition ${String(missing)} of “${app}”.`);
    const versions = promisedPages([{ number, definition: before }]);
    const findings = compareDraft({ definition: after, compiled: compileApp(after).app }, versions);
    return { findings: findings.map(asTold), others: secondClassChanges(before, after) };
  }

  async #definitionOf(app: string, number: number): Promise<AppDefinition | undefined> {
    const edition = Number.isSafeInteger(number) ? await this.#store.apps.edition(app, number) : undefined;
    return edition && checkAppFile(edition.source).definition;
  }

  async #draftRow(app: string): Promise<DraftRow> {
    const row = await this.#store.apps.draft(app);
    if (!row) throw new Refused(404, `There is no app “${app.slice(0, 60)}”.`);
    return row;
  }
}

const asTold = ({ id, fate, kind, page, parameter, words, witness }: Finding) => ({
  id,
  fate,
  kind,
  page,
  ...(parameter === undefined ? {} : { parameter }),
  words,
  witness,
  needsConsent: needsConsent(fate),
});
