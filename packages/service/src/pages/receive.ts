import type { Request, Response } from 'express';
import type { HostedApp } from '../apps/hosted-app.ts';
import { AttemptLimit } from '../http/attempt-limit.ts';
import { BodyGate } from '../http/bodies.ts';
import { isFromThisSite } from '../http/same-site.ts';
import type { ServiceParts } from '../service-parts.ts';
import { readForm, sendsFiles, type FormBody } from './form-body.ts';
import { message, valuesAnywhere } from './messages.ts';
import { says, type Step } from './steps.ts';

const filesOfNetwork = { window: 10 * 60_000, most: 60 };

/** Receives what forms send, within bounds: before anything else is done for them, and outside of the count of busy requests. */
export class FormReceiver {
  readonly #origins: ServiceParts['origins'];
  readonly #bodies = new BodyGate();
  readonly #forms: AttemptLimit;
  readonly #files: AttemptLimit;

  constructor({ settings, origins, clock }: Pick<ServiceParts, 'settings' | 'origins' | 'clock'>) {
    this.#origins = origins;
    this.#forms = new AttemptLimit({ window: 60_000, most: settings.formsPerMinute }, clock.steady);
    this.#files = new AttemptLimit(filesOfNetwork, clock.steady);
  }

  /** @throws RefusedBody where the body cannot be read */
  async receive(hosted: HostedApp, request: Request, response: Response): Promise<Step<{ form: FormBody }>> {
    const values = () => valuesAnywhere(hosted, request.originalUrl);
    if (!isFromThisSite(request, this.#origins.reached(request, hosted.draft)))
      return says(
        message(
          hosted,
          403,
          'The form came from another site',
          ['The form was not sent from this site, so it was not accepted.'],
          values(),
        ),
      );
    if (this.#forms.isReachedBy(request, response))
      return says(
        message(
          hosted,
          429,
          'Too many at once',
          ['Your network sent too many forms. Nothing is saved yet. Wait a minute, then go back and send the form again.'],
          values(),
        ),
      );
    if (sendsFiles(request) && this.#files.isReachedBy(request, response))
      return says(message(hosted, 429, 'Too many files', ['Your network sent too many files. Please try again later.'], values()));
    return { form: await this.#bodies.during(request, () => readForm(request, hosted.greatestFile)) };
  }
}
