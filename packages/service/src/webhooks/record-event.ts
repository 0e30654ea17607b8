import { randomUUID } from 'node:crypto';
import { own, fieldText, type CollectionDefinition, type AppDefinition, type RecordData, type SaveRequest } from '@pallmist/app';
import { timestamp, type WallClock } from '../clock.ts';
import type { WebhookEvent } from '../store/webhooks.ts';

/** What a form has done to a record. */
export interface RecordEvent {
  /** The page and the form that saved it. */
  page: string;
  form: string;
  action: SaveRequest['action'];
  collection: string;
  key: string;
  /** As it is now; as it was where it is gone. */
  record: RecordData;
}

export const eventOf: Record<SaveRequest['action'], WebhookEvent> = {
  create: 'record.created',
  change: 'record.changed',
  remove: 'record.removed',
};

/** An event in the JSON format of CloudEvents 1.0. Fields marked `sensitive` stay out of it. @param source the service’s base address */
export function cloudEvent(
  app: Pick<AppDefinition, 'app' | 'collections'>,
  { page, form, action, collection, key, record }: RecordEvent,
  source: string,
  clock: WallClock,
): { id: string; body: string } {
  const id = randomUUID();
  const definition = own(app.collections, collection);
  const body = {
    specversion: '1.0',
    id,
    source: `${source}/~/api/v1/apps/${app.app}`,
    type: eventOf[action],
    subject: `${collection}/${key}`,
    time: timestamp(clock),
    datacontenttype: 'application/json',
    data: { page, form, collection, key, record: definition === undefined ? {} : plainRecord(app, definition, record) },
  };
  return { id, body: JSON.stringify(body) };
}

/** The values of a record that may leave the service, references as their keys. */
export function plainRecord(
  { collections = {} }: Pick<AppDefinition, 'collections'>,
  { fields }: Pick<CollectionDefinition, 'fields'>,
  record: RecordData,
): Record<string, unknown> {
  const plain: Record<string, unknown> = {};
  for (const [name, { type, of = '', sensitive }] of Object.entries(fields)) {
    const value = own(record, name);
    if (value === undefined || sensitive === true) continue;
    plain[name] = type === 'record' ? fieldText(value, own(collections, of)) : value;
  }
  return plain;
}
