import { randomBytes, randomUUID } from 'node:crypto';
import { LessThan } from 'typeorm';
import { timestamp } from '../../clock.ts';
import type { Delivery, Webhook, WebhookStore } from '../webhooks.ts';
import type { Connection } from './connection.ts';
import { DeliveryEntity, WebhookEntity, type WebhookRow } from './entities.ts';
import { TypeormOutbox } from './outbox.ts';

const day = 24 * 60 * 60 * 1000;
/** What was sent, or has failed, can be looked at for so long. */
const keptDays = 14;

export class TypeormWebhookStore extends TypeormOutbox<Delivery> implements WebhookStore {
  constructor(on: Connection) {
    super(on, DeliveryEntity);
  }

  async list(app: string): Promise<Webhook[]> {
    return (await this.on.reader.find(WebhookEntity, { where: { app }, order: { madeAt: 'ASC', id: 'ASC' } })).map(asWebhook);
  }

  async find(id: string): Promise<Webhook | undefined> {
    const row = await this.on.reader.findOneBy(WebhookEntity, { id });
    return row === null ? undefined : asWebhook(row);
  }

  async make(given: Pick<Webhook, 'app' | 'url' | 'events' | 'collections'>): Promise<Webhook> {
    const webhook = { ...given, id: randomUUID(), secret: newSecret(), madeAt: timestamp(this.on.clock) };
    await this.on.write((manager) => manager.insert(WebhookEntity, asRow(webhook)));
    return webhook;
  }

  change(app: string, id: string, change: Partial<Pick<Webhook, 'url' | 'events' | 'collections'>>): Promise<Webhook | undefined> {
    return this.#change(app, id, change);
  }

  renewSecret(app: string, id: string): Promise<Webhook | undefined> {
    return this.#change(app, id, { secret: newSecret() });
  }

  #change(app: string, id: string, change: Partial<Webhook>): Promise<Webhook | undefined> {
    return this.on.write(async (manager) => {
      const row = await manager.findOneBy(WebhookEntity, { app, id });
      if (row === null) return undefined;
      const changed = { ...asWebhook(row), ...change };
      await manager.update(WebhookEntity, { id }, asRow(changed));
      return changed;
    });
  }

  remove(app: string, id: string): Promise<boolean> {
    return this.on.write(async (manager) => {
      const { affected } = await manager.delete(WebhookEntity, { app, id });
      if (affected === 1) await manager.delete(DeliveryEntity, { webhook: id });
      return affected === 1;
    });
  }

  async add(given: Pick<Delivery, 'webhook' | 'eventId' | 'type' | 'body'>): Promise<void> {
    const now = this.on.clock();
    const row: Omit<Delivery, 'number'> = {
      ...given,
      writtenAt: timestamp(this.on.clock),
      state: 'waiting',
      tries: 0,
      problem: '',
      dueAt: now,
      removeAt: now + keptDays * day,
    };
    await this.on.write((manager) => manager.insert(DeliveryEntity, row));
  }

  deliveries(webhook: string, before: number | undefined, most: number): Promise<Delivery[]> {
    return this.on.reader.find(DeliveryEntity, {
      where: { webhook, ...(before === undefined ? {} : { number: LessThan(before) }) },
      order: { number: 'DESC' },
      take: most,
    });
  }

  async resend(webhook: string, number: number): Promise<boolean> {
    const change = { state: 'waiting' as const, tries: 0, problem: '', dueAt: this.on.clock() };
    return (await this.on.write((manager) => manager.update(DeliveryEntity, { webhook, number }, change))).affected === 1;
  }
}

/** 256 bits, as HMAC with SHA-256 can use them (RFC 2104). */
const newSecret = () => randomBytes(32).toString('base64url');

const asRow = ({ events, collections, ...rest }: Webhook): WebhookRow => ({
  ...rest,
  events: JSON.stringify(events),
  collections: JSON.stringify(collections),
});
const asWebhook = ({ events, collections, ...rest }: WebhookRow): Webhook => ({
  ...rest,
  events: JSON.parse(events) as Webhook['events'],
  collections: JSON.parse(collections) as string[],
});
