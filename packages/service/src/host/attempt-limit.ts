import type { Request, RequestHandler, Response } from 'express';
import { rateLimit } from 'express-rate-limit';

interface Limits {
  /** Milliseconds in which attempts are counted, by the network address that they come from. */
  window: number;
  most: number;
  /** Attempts that do not count, seen when they are answered. */
  forgives?: (response: Response) => boolean;
}

/** Notices who tries something too often. Nobody is locked out for ever: the count begins anew when its time is over. */
export class AttemptLimit {
  readonly #limit: RequestHandler;
  readonly #reached = new WeakSet<Response>();

  constructor({ window, most, forgives }: Limits) {
    this.#limit = rateLimit({
      windowMs: window,
      limit: most,
      skipSuccessfulRequests: forgives !== undefined,
      requestWasSuccessful: (_, response) => forgives?.(response) ?? false,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      handler: (_, response) => {
        this.#reached.add(response);
      },
      // The service listens on one host; a proxy in front is trusted only when settings say so.
      validate: false,
    });
  }

  /** Counts this request. @returns whether there were too many */
  async isReached(request: Request, response: Response): Promise<boolean> {
    await this.#limit(request, response, () => undefined);
    return this.#reached.has(response);
  }
}
