import type { AppDefinition } from '@pallmist/app';
import type { Logger } from 'pino';
import type { Clock } from '../clock.ts';
import { Outbox } from '../outbox/outbox.ts';
import type { Delivery, WebhookStore } from '../store/webhooks.ts';
import type { Stores } from '../store/store.ts';
import { version } from '../version.ts';
import { cloudEvent, eventOf, type RecordEvent } from './record-event.ts';
import { signPost } from './signature.ts';

/** Milliseconds within which a receiver has to answer. */
const answerTime = 10_000;

/** Notifies other programs by signed requests when forms save records. */
export class WebhookSender {
  readonly #clock: Clock;
  readonly #outbox: Outbox<Delivery>;

  constructor(store: WebhookStore, log: Logger, clock: Clock) {
    this.#clock = clock;
    this.#outbox = new Outbox(store, log, clock, { what: 'delivery', send: (delivery) => post(store, delivery, clock) });
  }

  open(): void {
    this.#outbox.open();
  }

  wake(): void {
    this.#outbox.wake();
  }

  close(): Promise<void> {
    return this.#outbox.close();
  }

  /** Queues a message for each webhook that wants this event, in the transaction that saves the record. */
  async tell({ webhooks }: Pick<Stores, 'webhooks'>, app: AppDefinition, event: RecordEvent, source: string): Promise<void> {
    const type = eventOf[event.action];
    const wanting = (await webhooks.list(app.app)).filter(
      ({ events, collections }) => events.includes(type) && (collections.length === 0 || collections.includes(event.collection)),
    );
    if (wanting.length === 0) return;
    const { id, body } = cloudEvent(app, event, source, this.#clock);
    for (const { id: webhook } of wanting) await webhooks.add({ webhook, eventId: id, type, body });
  }
}

/** @throws Error with a sentence when the receiver does not answer with a status of success */
async function post(store: WebhookStore, delivery: Delivery, clock: Clock): Promise<void> {
  const webhook = await store.find(delivery.webhook);
  // Removed meanwhile: nobody wants it any more.
  if (webhook === undefined) return;
  const { url, secret, id } = webhook;
  const response = await fetch(url, {
    method: 'POST',
    body: delivery.body,
    // What is signed is meant for this address alone, and a redirect may lead into our own network.
    redirect: 'manual',
    signal: AbortSignal.timeout(answerTime),
    headers: {
      'content-type': 'application/cloudevents+json; charset=utf-8',
      'user-agent': `Pallmist/${version}`,
      ...signPost(url, delivery.body, secret, id, Math.floor(clock() / 1000)),
    },
  }).catch((error: unknown) => {
    throw new Error(reason(error), { cause: error });
  });
  // Only the status is of interest.
  await response.body?.cancel();
  if (!response.ok) throw new Error(`The receiver answered with the status ${String(response.status)}.`);
}

function reason(error: unknown): string {
  if (error instanceof Error && error.name === 'TimeoutError')
    return `The receiver did not answer within ${String(answerTime / 1000)} seconds.`;
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  return `The receiver was not reached: ${cause instanceof Error ? cause.message : String(cause)}`;
}
