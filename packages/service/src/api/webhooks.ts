import { quote, suggest } from '@pallmist/app';
import type { Settings } from '../settings.ts';
import { innerSentence, isInner } from '../webhooks/receivers.ts';
import type { ServiceParts } from '../service-parts.ts';
import { webhookEvents, type Webhook } from '../store/webhooks.ts';
import type { Handlers } from './handlers.ts';
import { Refused } from './problem-details.ts';
import { queryOf } from './query.ts';

type Names =
  'listWebhooks' | 'makeWebhook' | 'changeWebhook' | 'renewWebhookSecret' | 'removeWebhook' | 'listDeliveries' | 'resendDelivery';

const mostWebhooks = 20;
const mostDeliveries = 50;
const thisMachine = ['localhost', '127.0.0.1', '[::1]'];

/** Webhooks of an app, and what was sent to them. */
export function webhookHandlers({ store, live, webhooks: sender, settings }: ServiceParts): Pick<Handlers, Names> {
  const gone = (id: string) => new Refused(404, `The app has no webhook ${quote(id)}.`);
  const ofApp = async (app: string, id: string) => {
    const found = await store.webhooks.find(id);
    if (found?.app !== app) throw gone(id);
    return found;
  };
  const mustKnow = async (app: string, collections: readonly string[] = []) => {
    const draft = await live.draft(app);
    if (draft === undefined) throw new Refused(404, `There is no app ${quote(app)}.`);
    const names = Object.keys(('problems' in draft ? live.byName(app) : draft)?.definition.collections ?? {});
    const stranger = collections.find((name) => !names.includes(name));
    if (stranger !== undefined) throw new Refused(422, `The app has no collection ${quote(stranger)}. ${suggest(stranger, names)}`);
  };
  return {
    async listWebhooks({ parameters: { app = '' } }) {
      await mustKnow(app);
      return { webhooks: (await store.webhooks.list(app)).map(shown) };
    },
    async makeWebhook({ parameters: { app = '' }, body: { url, events = [...webhookEvents], collections = [] } }) {
      await mustKnow(app, collections);
      if ((await store.webhooks.list(app)).length >= mostWebhooks)
        throw new Refused(422, `An app has at most ${String(mostWebhooks)} webhooks. Remove one first.`);
      const made = await store.webhooks.make({ app, url: safeUrl(url, settings), events, collections });
      return { webhook: shown(made), secret: made.secret };
    },
    async changeWebhook({ parameters: { app = '', id = '' }, body: { url, events, collections } }) {
      await mustKnow(app, collections);
      const changed = await store.webhooks.change(app, id, {
        ...(url === undefined ? {} : { url: safeUrl(url, settings) }),
        ...(events === undefined ? {} : { events }),
        ...(collections === undefined ? {} : { collections }),
      });
      if (changed === undefined) throw gone(id);
      return { webhook: shown(changed) };
    },
    async renewWebhookSecret({ parameters: { app = '', id = '' } }) {
      const changed = await store.webhooks.renewSecret(app, id);
      if (changed === undefined) throw gone(id);
      return { webhook: shown(changed), secret: changed.secret };
    },
    async removeWebhook({ parameters: { app = '', id = '' } }) {
      if (!(await store.webhooks.remove(app, id))) throw gone(id);
      return { done: true };
    },
    async listDeliveries({ parameters: { app = '', id = '' }, request }) {
      await ofApp(app, id);
      const before = queryOf(request).get('before');
      if (before !== null && !/^\d{1,15}$/.test(before)) throw new Refused(422, '“before” is the number of a delivery.');
      const found = await store.webhooks.deliveries(id, before === null ? undefined : Number(before), mostDeliveries);
      return {
        deliveries: found.map(({ number, eventId, type, writtenAt, state, tries, problem, body }) => ({
          ...{ number, eventId, type, writtenAt, state, tries, problem, body },
        })),
      };
    },
    async resendDelivery({ parameters: { app = '', id = '', number = '' } }) {
      await ofApp(app, id);
      if (!(await store.webhooks.resend(id, Number(number)))) throw new Refused(404, `The webhook has no delivery ${quote(number)}.`);
      sender.wake();
      return { done: true };
    },
  };
}

const shown = ({ id, url, events, collections, madeAt }: Webhook) => ({
  id,
  url,
  events: [...events],
  collections: [...collections],
  madeAt,
});

/** Records must not be readable on the network. @throws Refused unless the address is https, or on this machine */
function safeUrl(given: string, { webhookNetworks }: Pick<Settings, 'webhookNetworks'>): string {
  const url = new URL(given);
  if (url.username !== '' || url.password !== '') throw new Refused(422, 'The address of a webhook has no user name or password in it.');
  if (url.protocol === 'http:' && !thisMachine.includes(url.hostname))
    throw new Refused(422, 'The address of a webhook begins with https://, except on this machine.');
  if (webhookNetworks === 'public' && isInner(url.hostname)) throw new Refused(422, innerSentence);
  url.hash = '';
  return url.href;
}
