import type { ProblemDetails } from '@pallmist/api';
import { PallmistError, type Problem } from '@pallmist/app';

/** The kinds of problems, by status. */
export const titles: Readonly<Record<number, string>> = {
  400: 'Bad request',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  405: 'Method not allowed',
  408: 'Too slow',
  409: 'Conflict',
  412: 'Changed meanwhile',
  413: 'Too large',
  415: 'Not of the right type',
  422: 'Refused',
  428: 'Precondition required',
  429: 'Too many requests',
  500: 'Failed',
  503: 'Busy',
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
    // It leads to the catalogue of problems in the reference.
    type: titles[status] === undefined ? 'about:blank' : `/~/api#problem-${String(status)}`,
    title: titles[status] ?? 'Refused',
    status,
    detail,
    ...(problems === undefined ? {} : { problems: [...problems] as NonNullable<ProblemDetails['problems']> }),
  };
}
