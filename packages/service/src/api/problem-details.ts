import type { ProblemDetails } from '@pallmist/api';
import { PallmistError, type Problem } from '@pallmist/app';

const titles: Record<number, string> = {
  400: 'Bad request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  405: 'Method not allowed',
  409: 'Conflict',
  413: 'Too large',
  415: 'Not JSON',
  422: 'Refused',
  500: 'Failed',
};

/** An answer other than 200, thrown by the handlers of the HTTP interface. */
export class Refused extends PallmistError {
  readonly code = 'refused';
  readonly details: ProblemDetails;

  constructor(status: number, detail: string, problems?: readonly Problem[]) {
    super(detail);
    this.details = problemDetails(status, detail, problems);
  }
}

/** Problem Details (RFC 9457). */
export function problemDetails(status: number, detail: string, problems?: readonly Problem[]): ProblemDetails {
  return {
    type: 'about:blank',
    title: titles[status] ?? 'Refused',
    status,
    detail,
    ...(problems === undefined ? {} : { problems: [...problems] as NonNullable<ProblemDetails['problems']> }),
  };
}
