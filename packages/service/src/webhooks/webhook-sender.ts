import { request as requestPlainly } from 'node:http';
import { request as requestSafely } from 'node:https';
import type { AppDefinition } from '@pallmist/app';
import type { Logger } from 'pino';
import type { WallClock } from '../clock.ts';
import { Outbox } from '../outbox/outbox.ts';
import type { Delivery, WebhookStore } from '../store/webhooks.ts';
import type { Stores } from '../store/store.ts';
import { version } from '../version.ts';
import { cloudEvent, eventOf, type RecordEvent } from './record-event.ts';
import type { Settings } from '../settings.ts';
import { innerSentence, isInner, publicLookup } from './receivers.ts';
import { signPost } from './signature.ts';

/** Milliseconds within which a receiver has to answer. */
const answerTime = 10_000;

/** Notifies other programs by signed requests when forms save records. */
export class WebhookSender {
  readonly #clock: WallClock;
  readonly #outbox: Outbox<Delivery>;

  constructor(store: WebhookStore, log: Logger, clock: WallClock, { webhookNetworks }: Pick<Settings, 'webhookNetworks'>) {
    this.#clock = clock;
    this.#outbox = new Outbox(store, log, clock, { what: 'delivery', send: (delivery) => post(store, delivery, clock, webhookNetworks) });
  }

  open(): void {
    this.#outbox.open();
  }

  wake(): void {
    this.#outbox.wake();
  }

  /** @param most milliseconds that deliveries have which are on their way */
  close(most: number): Promise<void> {
    return this.#outbox.close(most);
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
async function post(store: WebhookStore, delivery: Delivery, clock: WallClock, networks: Settings['webhookNetworks']): Promise<void> {
  const webhook = await store.find(delivery.webhook);
  // Removed meanwhile: nobody wants it any more.
  if (webhook === undefined) return;
  const { url, secret, id } = webhook;
  const status = await send(url, delivery.body, networks, {
    'content-type': 'application/cloudevents+json; charset=utf-8',
    'user-agent': `Pallmist/${version}`,
    ...signPost(url, delivery.body, secret, id, Math.floor(clock() / 1000)),
  }).catch((error: unknown) => {
    throw new Error(reason(error), { cause: error });
  });
  if (status < 200 || status > 299) throw new Error(`The receiver answered with the status ${String(status)}.`);
}

/** Posts a body, and follows no redirect: what is signed is meant for this address alone. @returns the status of the answer */
function send(given: string, body: string, networks: Settings['webhookNetworks'], headers: Record<string, string>): Promise<number> {
  const url = new URL(given);
  if (networks === 'public' && isInner(url.hostname)) return Promise.reject(new Error(innerSentence));
  return new Promise((resolve, reject) => {
    const post = (url.protocol === 'https:' ? requestSafely : requestPlainly)(url, {
      method: 'POST',
      headers: { ...headers, 'content-length': Buffer.byteLength(body) },
      signal: AbortSignal.timeout(answerTime),
      ...(networks === 'public' ? { lookup: publicLookup } : {}),
    });
    post.on('error', reject);
    post.on('response', (response) => {
      // Only the status is of interest.
      response.on('error', reject).resume();
      resolve(response.statusCode ?? 0);
    });
    post.end(body);
  });
}

function reason(error: unknown): string {
  if (error instanceof Error && (error.name === 'TimeoutError' || error.name === 'AbortError'))
    return `The receiver did not answer within ${String(answerTime / 1000)} seconds.`;
  const cause = error instanceof Error && error.cause instanceof Error ? error.cause : error;
  return `The receiver was not reached: ${cause instanceof Error ? cause.message : String(cause)}`;
}
