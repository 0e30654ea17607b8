import { apiBase, operations, type AnswerOf, type BodyOf, type Operation, type OperationName } from './operations.ts';
import { problemDetails, type ProblemDetails } from './schemas.ts';

/** The service answered with an error, or with something that is no answer of Pallmist’s. */
export class ApiError extends Error {
  readonly status: number;
  readonly details: ProblemDetails;

  constructor(details: ProblemDetails) {
    super(details.detail);
    this.name = 'ApiError';
    this.status = details.status;
    this.details = details;
  }
}

/** The service could not be reached at all. */
export class UnreachableError extends Error {
  constructor(base: string, cause: unknown) {
    super(`There is no Pallmist service at ${base}.`, { cause });
    this.name = 'UnreachableError';
  }
}

export interface ClientOptions {
  /** Where the service is, such as http://127.0.0.1:4680; empty for the same origin. */
  base: string;
  /** The owner’s token; a browser uses the console’s session instead. */
  token?: string | undefined;
  /** Milliseconds until a call is given up; the rule is 30,000. */
  timeout?: number;
}

/** Calls the HTTP interface. Every answer is checked against its schema. */
export class PallmistClient {
  readonly #options: ClientOptions;

  constructor(options: ClientOptions) {
    this.#options = options;
  }

  /**
   * @param parameters those in the operation’s path
   * @throws ApiError, UnreachableError
   */
  async call<Name extends OperationName>(name: Name, parameters: Record<string, string>, body?: BodyOf<Name>): Promise<AnswerOf<Name>> {
    const operation: Operation = operations[name];
    const path = operation.path.replace(/\{(\w+)\}/g, (_, key: string) => encodeURIComponent(parameters[key] ?? ''));
    const { base, token, timeout = 30_000 } = this.#options;
    let response: Response;
    try {
      response = await fetch(base.replace(/\/$/, '') + apiBase + path, {
        method: operation.method.toUpperCase(),
        headers: {
          accept: 'application/json',
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...(token === undefined ? {} : { authorization: `Bearer ${token}` }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: AbortSignal.timeout(timeout),
      });
    } catch (error) {
      throw new UnreachableError(base, error);
    }
    const answer: unknown = await response.json().catch(() => undefined);
    if (!response.ok) {
      const details = problemDetails.safeParse(answer);
      throw new ApiError(details.success ? details.data : strange(response.status));
    }
    const parsed = operation.answer.safeParse(answer);
    if (!parsed.success) throw new ApiError(strange(response.status));
    return parsed.data as AnswerOf<Name>;
  }
}

const strange = (status: number): ProblemDetails => ({
  type: 'about:blank',
  title: 'Not understood',
  status,
  detail: `The answer (status ${String(status)}) is not one of Pallmist’s. Is it the right address, and the same version?`,
});
