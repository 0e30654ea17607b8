import { PallmistError } from '@pallmist/app/error';

/** What the exit status says. */
export const exit = { done: 0, problems: 1, usage: 2, unreached: 3 } as const;

/** Ends the command with a sentence for people. */
export class CommandError extends PallmistError {
  readonly code = 'command-failed';
  readonly status: number;
  /** What a program gets with --json. */
  readonly data: unknown;

  constructor(status: number, message: string, data?: unknown) {
    super(message);
    this.status = status;
    this.data = data;
  }
}
