import { randomBytes } from 'node:crypto';
import { LessThan, type DataSource, type Repository } from 'typeorm';
import { HeldForm, type HeldFormRow } from './entities/index.ts';
import { hashToken } from './sessions.ts';

/** What somebody typed is kept for a day. */
const lasts = 24 * 60 * 60 * 1000;

/** What stood in a form that was sent. */
export interface SentTexts {
  address: string;
  form: string;
  texts: Record<string, string>;
}

/** What people had typed into forms when their session had ended, until they have signed in again. */
export class HeldFormStore {
  readonly #forms: Repository<HeldFormRow>;

  constructor(source: DataSource) {
    this.#forms = source.getRepository(HeldForm);
  }

  /** @returns the token for the browser */
  async hold(scope: string, { address, form, texts }: SentTexts): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    await this.#forms.delete({ endsAt: LessThan(Date.now()) });
    await this.#forms.insert({
      tokenHash: hashToken(token),
      scope,
      address,
      form,
      texts: JSON.stringify(texts),
      endsAt: Date.now() + lasts,
    });
    return token;
  }

  async find(scope: string, token: string): Promise<SentTexts | undefined> {
    const row = await this.#forms.findOneBy({ tokenHash: hashToken(token), scope });
    if (row === null || row.endsAt < Date.now()) return undefined;
    return { address: row.address, form: row.form, texts: JSON.parse(row.texts) as Record<string, string> };
  }

  async forget(token: string): Promise<void> {
    await this.#forms.delete({ tokenHash: hashToken(token) });
  }
}
