import { PallmistError } from '@pallmist/address';
import { imported, problemDetails, type Imported, type ProblemDetails } from './answers.ts';
import { multipart, type RecordFile } from './multipart.ts';
import { apiBase, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from './operations.ts';
import type { Schema } from './schema.ts';

export type { RecordFile } from './multipart.ts';

/** The service answered with an error, or with something that is no answer of Pallmist’s. */
export class ApiError extends PallmistError {
  readonly code = 'refused-by-service';
  readonly status: number;
  readonly details: ProblemDetails;

  constructor(details: ProblemDetails) {
    super(details.detail);
    this.status = details.status;
    this.details = details;
  }
}

/** The service could not be reached, or the connection broke off before it had answered. */
export class UnreachableError extends PallmistError {
  readonly code = 'service-not-reached';

  constructor(base: string, cause: unknown) {
    const brokeOff = /ECONNRESET|EPIPE|UND_ERR_SOCKET/.test(codeOf(cause));
    super(
      brokeOff
        ? `The connection to the service at ${base} broke off before it answered. See whether it is running, then look whether the change was made.`
        : `There is no Pallmist service at ${base}.`,
      { cause },
    );
  }
}

/** The code that Node's fetch gives in the cause of its error. */
const codeOf = (error: unknown): string => {
  const cause = error instanceof Error ? error.cause : undefined;
  return typeof cause === 'object' && cause !== null && 'code' in cause ? String(cause.code) : '';
};

/** The service was reached, and did not answer in time. */
export class SlowServiceError extends PallmistError {
  readonly code = 'service-slow';

  constructor(base: string, milliseconds: number) {
    super(
      `The service at ${base} did not answer within ${String(Math.round(milliseconds / 1000))} seconds. It may still be at work; look again in a moment.`,
    );
  }
}

export interface ClientOptions {
  /** Where the service is, such as http://127.0.0.1:4680; empty for the same origin. */
  base: string;
  /** The owner’s token; a browser uses the console’s session instead. */
  token?: string | undefined;
  /** Milliseconds until a call is given up; 30,000 when left out. Calls that send or fetch records are not given up. */
  timeout?: number;
}

/** Calls the HTTP interface. Every answer is checked against its schema. */
export class PallmistClient {
  readonly #options: ClientOptions;

  constructor(options: ClientOptions) {
    this.#options = options;
  }

  /**
   * @param parameters those in the operation’s path; all others go into the query
   * @param ifMatch the entity tag that what is changed has to have
   * @throws ApiError, UnreachableError, SlowServiceError
   */
  async call<Name extends OperationName>(
    name: Name,
    parameters: Record<string, string>,
    body?: BodyOf<Name>,
    { ifMatch }: { ifMatch?: string } = {},
  ): Promise<AnswerOf<Name>> {
    const operation: Operation = operations[name];
    const query = new URLSearchParams(parameters);
    const below = operation.path.replace(/\{(\w+)\}/g, (_, key: string) => {
      query.delete(key);
      return encodeURIComponent(parameters[key] ?? '');
    });
    const path = query.size === 0 ? below : `${below}?${query.toString()}`;
    const { timeout = 30_000 } = this.#options;
    const response = await this.#fetch(
      path,
      {
        method: operation.method.toUpperCase(),
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(timeout),
      },
      {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(ifMatch === undefined ? {} : { 'if-match': ifMatch }),
      },
    );
    return this.#answer(response, operation.answer) as Promise<AnswerOf<Name>>;
  }

  /** Pushes an app file with records, which are read as they are sent, and pictures. */
  async pushWithRecords(
    app: string,
    texts: { source: string; revision?: number; replace?: boolean },
    files: readonly RecordFile[],
  ): Promise<AnswerOf<'pushDraft'>> {
    const { type, body } = multipart(texts, files);
    const path = `/apps/${encodeURIComponent(app)}/draft`;
    return this.#answer(await this.#stream('PUT', path, type, body), operations.pushDraft.answer);
  }

  /** Brings the records of a file into a collection. */
  async importRecords(
    app: string,
    collection: string,
    file: Pick<RecordFile, 'content'>,
    options: { format: 'csv' | 'json'; mode: 'update' | 'replace'; replace: boolean },
  ): Promise<Imported> {
    const query = new URLSearchParams({ mode: options.mode, ...(options.replace ? { replace: 'true' } : {}) });
    const path = `/apps/${encodeURIComponent(app)}/records/${encodeURIComponent(collection)}?${query.toString()}`;
    const type = options.format === 'csv' ? 'text/csv' : 'application/json';
    return this.#answer(await this.#stream('POST', path, type, file.content), imported);
  }

  /** Adds the records of a CSV text to a collection, or changes those of the same keys. The text is sent as a whole, as browsers can. */
  async importText(app: string, collection: string, text: Uint8Array<ArrayBuffer>): Promise<Imported> {
    const path = `/apps/${encodeURIComponent(app)}/records/${encodeURIComponent(collection)}?mode=update`;
    return this.#answer(await this.#fetch(path, { method: 'POST', body: text }, { 'content-type': 'text/csv' }), imported);
  }

  /** The records of a collection as a text, as it comes. */
  async exportRecords(app: string, collection: string, format: 'csv' | 'json'): Promise<ReadableStream<Uint8Array>> {
    const path = `/apps/${encodeURIComponent(app)}/records/${encodeURIComponent(collection)}?format=${format}`;
    const response = await this.#fetch(path, { method: 'GET' }, {});
    if (!response.ok || response.body === null) throw await failureOf(response);
    return response.body;
  }

  async #stream(method: string, path: string, type: string, body: AsyncIterable<Uint8Array>): Promise<Response> {
    const unreadable: unknown[] = [];
    async function* watched() {
      try {
        yield* body;
      } catch (error) {
        unreadable.push(error);
        throw error;
      }
    }
    try {
      // Undici takes what comes bit by bit, and wants to be told that it answers only afterwards.
      const request = { method, body: watched() as unknown as BodyInit, duplex: 'half' } as RequestInit;
      return await this.#fetch(path, request, { 'content-type': type });
    } catch (error) {
      // What cannot be read here is no fault of the service.
      throw unreadable[0] ?? error;
    }
  }

  async #fetch(path: string, request: RequestInit, headers: Record<string, string>): Promise<Response> {
    const { base, token, timeout = 30_000 } = this.#options;
    try {
      return await fetch(base.replace(/\/$/, '') + apiBase + path, {
        ...request,
        headers: { accept: 'application/json', ...headers, ...(token === undefined ? {} : { authorization: `Bearer ${token}` }) },
      });
    } catch (error) {
      if (error instanceof Error && error.name === 'TimeoutError') throw new SlowServiceError(base, timeout);
      throw new UnreachableError(base, error);
    }
  }

  async #answer<Answer>(response: Response, schema: Schema<Answer>): Promise<Answer> {
    if (!response.ok) throw await failureOf(response);
    const parsed = schema.safeParse(await response.json().catch(() => undefined));
    if (!parsed.success) throw new ApiError(strange(response.status));
    return parsed.data;
  }
}

async function failureOf(response: Response): Promise<ApiError> {
  const details = problemDetails.safeParse(await response.json().catch(() => undefined));
  return new ApiError(details.success ? details.data : strange(response.status));
}

const strange = (status: number): ProblemDetails => ({
  type: 'about:blank',
  title: 'Not understood',
  status,
  detail: `The answer (status ${String(status)}) is not one of Pallmist’s. Is it the right address, and the same version?`,
});
