import type { DataSource } from 'typeorm';

/** How many came with a value on a day, and how many of them sent a form. */
export interface ArrivalCount {
  parameter: string;
  value: string;
  /** YYYY-MM-DD, UTC. */
  day: string;
  arrivals: number;
  submissions: number;
}

/** Values come from strangers: beyond so many of an app on a day they are counted together. */
const mostValues = 500;
const others = '(others)';

/** Counts arrivals and sent forms by the values that are remembered for a visit. Nobody is remembered by it. */
export class ArrivalStore {
  readonly #source: DataSource;

  constructor(source: DataSource) {
    this.#source = source;
  }

  /** @param texts the values that somebody has come with, by parameter */
  arrived(app: string, texts: Record<string, string>): Promise<void> {
    return this.#count(app, texts, 'arrivals');
  }

  /** @param texts the values of the visit in which somebody has sent a form */
  submitted(app: string, texts: Record<string, string>): Promise<void> {
    return this.#count(app, texts, 'submissions');
  }

  list(app: string): Promise<ArrivalCount[]> {
    return this.#source.query(
      'SELECT parameter, value, day, arrivals, submissions FROM arrival WHERE app = ? ORDER BY day DESC, parameter, arrivals DESC LIMIT 5000',
      [app],
    );
  }

  async #count(app: string, texts: Record<string, string>, column: 'arrivals' | 'submissions'): Promise<void> {
    const day = new Date().toISOString().slice(0, 10);
    for (const [parameter, text] of Object.entries(texts)) {
      const value = (await this.#isFull(app, day)) ? others : text.slice(0, 200);
      await this.#source.query(
        `INSERT INTO arrival (app, parameter, value, day, arrivals, submissions) VALUES (?, ?, ?, ?, ?, ?)
         ON CONFLICT (app, parameter, value, day) DO UPDATE SET ${column} = ${column} + 1`,
        [app, parameter, value, day, column === 'arrivals' ? 1 : 0, column === 'submissions' ? 1 : 0],
      );
    }
  }

  async #isFull(app: string, day: string): Promise<boolean> {
    const rows: { count: number }[] = await this.#source.query('SELECT COUNT(*) AS count FROM arrival WHERE app = ? AND day = ?', [
      app,
      day,
    ]);
    return (rows[0]?.count ?? 0) >= mostValues;
  }
}
