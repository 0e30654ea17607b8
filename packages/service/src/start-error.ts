import { PallmistError } from '@pallmist/app';

/** A reason not to start, in one sentence for people. */
export class StartError extends PallmistError {
  readonly code = 'cannot-start';
}
