import type { OutboxStore } from '../outbox/outbox.ts';

/** The events that webhooks can receive. */
export const webhookEvents = ['record.created', 'record.changed', 'record.removed'] as const;
export type WebhookEvent = (typeof webhookEvents)[number];

/** An address of another program that the service notifies when a form of an app saves a record. */
export interface Webhook {
  id: string;
  app: string;
  url: string;
  /** With which what is sent is signed. */
  secret: string;
  events: readonly WebhookEvent[];
  /** Only records of these collections; of all when empty. */
  collections: readonly string[];
  /** RFC 3339, UTC. */
  madeAt: string;
}

export type DeliveryState = 'waiting' | 'sent' | 'failed';

/** One message to a webhook. */
export interface Delivery {
  number: number;
  webhook: string;
  /** The event’s id, the same for each try: a receiver knows by it what it has already. */
  eventId: string;
  type: WebhookEvent;
  /** JSON, as it is signed and sent. */
  body: string;
  /** RFC 3339, UTC. */
  writtenAt: string;
  state: DeliveryState;
  tries: number;
  problem: string;
  /** When it is tried next, in milliseconds since 1970. */
  dueAt: number;
  removeAt: number;
}

/** Webhooks of the apps, and what is on its way to them. */
export interface WebhookStore extends OutboxStore<Delivery> {
  list(app: string): Promise<Webhook[]>;
  find(id: string): Promise<Webhook | undefined>;
  make(given: Pick<Webhook, 'app' | 'url' | 'events' | 'collections'>): Promise<Webhook>;
  /** Changes its address, or which events it gets. */
  change(app: string, id: string, change: Partial<Pick<Webhook, 'url' | 'events' | 'collections'>>): Promise<Webhook | undefined>;
  /** Gives it a new secret, which signs from now on. */
  renewSecret(app: string, id: string): Promise<Webhook | undefined>;
  /** Removes it with all that was to be sent to it. */
  remove(app: string, id: string): Promise<boolean>;
  /** Puts a message on its way. */
  add(given: Pick<Delivery, 'webhook' | 'eventId' | 'type' | 'body'>): Promise<void>;
  /** The newest first. @param before only those with a lower number */
  deliveries(webhook: string, before: number | undefined, most: number): Promise<Delivery[]>;
  /** Puts one that was sent, or has failed, on its way again. */
  resend(webhook: string, number: number): Promise<boolean>;
}
