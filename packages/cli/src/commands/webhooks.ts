import type { WebhookSummary } from '@pallmist/api';
import type { Command } from 'commander';
import { CommandError, exit } from '../exit.ts';
import { columns, print } from '../output.ts';
import { clientFor, withService, type ServiceOptions } from '../target.ts';

interface WebhookOptions extends ServiceOptions {
  make?: string;
  collections?: string;
  deliveries?: string;
  resend?: string[];
  renew?: string;
  remove?: string;
}

export function addWebhooks(program: Command): void {
  withService(program.command('webhooks').argument('<app>', 'Name of the app'))
    .option('--make <url>', 'Tell this address when a form has saved a record')
    .option('--collections <list>', 'With --make: only for records of these collections, with commas between')
    .option('--deliveries <id>', 'List what was sent to a webhook, and what waits')
    .option('--resend <id-and-number...>', 'Send a delivery again: the webhook’s id, then the number')
    .option('--renew <id>', 'Give a webhook a new secret')
    .option('--remove <id>', 'Remove a webhook')
    .addHelpText(
      'after',
      '\nExamples:\n  pallmist webhooks quillmoor --make https://desk.quillmoor.example/told --collections members\n  pallmist webhooks quillmoor --deliveries 4f0c\nAn id can be cut short as far as it stays unique.',
    )
    .action(async (app: string, options: WebhookOptions) => {
      const { make, deliveries, resend, renew, remove, json } = options;
      const asked = [make, deliveries, resend, renew, remove].filter((given) => given !== undefined);
      if (asked.length > 1) throw new CommandError(exit.usage, 'Give one of --make, --deliveries, --resend, --renew and --remove.');
      const client = await clientFor(options);
      const all = async () => (await client.call('listWebhooks', { app }, undefined)).webhooks;
      const idOf = async (beginning: string) => {
        const [found, more] = (await all()).filter(({ id }) => id.startsWith(beginning));
        if (found === undefined || more !== undefined)
          throw new CommandError(
            exit.usage,
            `${more === undefined ? 'No webhook has' : 'More than one webhook has'} an id that begins with “${beginning}”.`,
          );
        return found.id;
      };
      if (make !== undefined) {
        const collections = options.collections?.split(',').map((name) => name.trim());
        show(json, await client.call('makeWebhook', { app }, { url: make, ...(collections === undefined ? {} : { collections }) }));
      } else if (renew !== undefined) show(json, await client.call('renewWebhookSecret', { app, id: await idOf(renew) }, undefined));
      else if (remove !== undefined) {
        const answer = await client.call('removeWebhook', { app, id: await idOf(remove) }, undefined);
        print(json, answer, () => ['The webhook is removed.']);
      } else if (resend !== undefined) {
        const [id = '', number = ''] = resend;
        const answer = await client.call('resendDelivery', { app, id: await idOf(id), number }, undefined);
        print(json, answer, () => [`Delivery ${number} is on its way again.`]);
      } else if (deliveries !== undefined) {
        const answer = await client.call('listDeliveries', { app, id: await idOf(deliveries) }, undefined);
        print(json, answer, () =>
          answer.deliveries.length === 0
            ? ['Nothing was sent yet.']
            : columns(
                answer.deliveries.map(({ number, writtenAt, type, state, tries, problem }) => [
                  String(number),
                  writtenAt.slice(0, 16).replace('T', ' '),
                  type,
                  state,
                  `${String(tries)} tries`,
                  problem,
                ]),
              ),
        );
      } else {
        const webhooks = await all();
        print(json, { webhooks }, () => (webhooks.length === 0 ? ['The app has no webhooks.'] : columns(webhooks.map(row))));
      }
    });
}

const show = (json: boolean | undefined, answer: { webhook: WebhookSummary; secret: string }) => {
  print(json, answer, () => ['Its secret is shown once:', answer.secret, '', ...columns([row(answer.webhook)])]);
};

const row = ({ id, url, events, collections }: WebhookSummary) => [
  id,
  url,
  events.join(','),
  collections.length === 0 ? 'all collections' : collections.join(','),
];
