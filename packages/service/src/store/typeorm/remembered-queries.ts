import type { EntityManager, ObjectLiteral, QueryBuilder } from 'typeorm';

export type Bound = string | number | null;
export type Values = Readonly<Record<string, Bound>>;

/** A query as the QueryBuilder words it, and the names of its values in the order in which they are bound. */
interface WordedQuery {
  text: string;
  order: readonly string[];
}

/** What a builder writes for a page of a list; replaced by placeholders, so that each page has the same text. */
const anyLimit = 1_234_567;
const anyOffset = 7_654_321;
const mostKept = 1000;

/** What stands for a value while a query is worded: no number, which the QueryBuilder would write into the text. */
const mark = (name: string) => `\u0001${name}`;

/**
 * Queries of the QueryBuilder, worded once for each shape and then run with bound values: building one takes longer than
 * running it, and a text that does not change keeps its prepared statement.
 */
export class RememberedQueries {
  readonly #worded = new Map<string, WordedQuery>();

  /** Forgets everything: tables have changed. */
  clear(): void {
    this.#worded.clear();
  }

  /**
   * Runs a query.
   * @param shape what tells it from every other query
   * @param build makes it, with a placeholder for each value
   */
  rows<Row>(
    manager: EntityManager,
    shape: string,
    values: Values,
    build: (manager: EntityManager) => QueryBuilder<ObjectLiteral>,
  ): Promise<Row[]> {
    const { text, order } = this.#word(manager, shape, values, build);
    return manager.query(
      text,
      order.map((name) => values[name] ?? null),
    );
  }

  /** Runs a query that changes rows. @returns how many */
  async affect(
    manager: EntityManager,
    shape: string,
    values: Values,
    build: (manager: EntityManager) => QueryBuilder<ObjectLiteral>,
  ): Promise<number> {
    const { text, order } = this.#word(manager, shape, values, build);
    const bound = order.map((name) => values[name] ?? null);
    const { affected } = (await manager.queryRunner?.query(text, bound, true)) ?? {};
    return affected ?? 0;
  }

  #word(
    manager: EntityManager,
    shape: string,
    values: Values,
    build: (manager: EntityManager) => QueryBuilder<ObjectLiteral>,
  ): WordedQuery {
    let worded = this.#worded.get(shape);
    if (worded === undefined) {
      const marks = Object.fromEntries(Object.keys(values).map((name) => [name, mark(name)]));
      const [text, parameters] = build(manager).setParameters(marks).getQueryAndParameters();
      worded = withPage(text, parameters as string[]);
      if (this.#worded.size >= mostKept) this.#worded.clear();
      this.#worded.set(shape, worded);
    }
    return worded;
  }
}

/** Takes the page of a list out of the text: the values `limit` and `offset`. */
function withPage(text: string, parameters: readonly string[]): WordedQuery {
  const order = parameters.map((parameter) => parameter.slice(1));
  const limit = ` LIMIT ${String(anyLimit)}`;
  if (!text.includes(limit)) return { text, order };
  const before = (text.slice(0, text.indexOf(limit)).match(/\?/g) ?? []).length;
  const offset = ` OFFSET ${String(anyOffset)}`;
  const names = text.includes(offset) ? ['limit', 'offset'] : ['limit'];
  return {
    text: text.replace(limit, ' LIMIT ?').replace(offset, ' OFFSET ?'),
    order: [...order.slice(0, before), ...names, ...order.slice(before)],
  };
}

/** For `limit()` and `offset()` of a builder whose page is bound as the values `limit` and `offset`. */
export const boundPage = { limit: anyLimit, offset: anyOffset };

/** What a builder binds for a value that it takes itself rather than as a placeholder. */
export const boundValue = mark;
